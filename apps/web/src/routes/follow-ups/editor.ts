import type { ProfileFieldShape } from '@haycart/api';
import type { Destination, FollowUp, RouteDefinition, Write } from '@haycart/core';
import type { ComponentType } from 'react';

export interface EditorProps {
  followUp: FollowUp;
  put: (next: FollowUp) => void;
  definition: RouteDefinition;
  destination: Destination;
  incoming: readonly ProfileFieldShape[];
  sample: ReadonlyMap<string, string>;
}

/** How one kind of follow-up is edited: rows of a grid, a label and what is set beside it. */
export interface FollowUpEditor {
  Icon: ComponentType<{ className?: string }>;
  Editor: ComponentType<EditorProps>;
  /** A new one; `null` where the route writes nothing that it could be about. */
  begin: (writes: readonly Write[]) => FollowUp | null;
}
