import type { KnownShape } from '@haycart/api';
import type { Lookups, Problem, RehearsedPlan, RouteDefinition, RouteSurroundings, Submission } from '@haycart/core';

/** What the worker keeps from one rehearsal to the next, so that typing sends the definition alone. */
export interface RehearsalGround {
  submission: Submission;
  surroundings: RouteSurroundings;
}

export type ToWorker =
  | { ground: RehearsalGround }
  | { definition: RouteDefinition; turn: number }
  /** What the server knows, for what was looked for under this text. */
  | { known: Pick<KnownShape, 'records' | 'links' | 'counters'>; text: string };

export type FromWorker =
  | { turn: number; plan: RehearsedPlan }
  /** What must be known of existing records first, with a text that is the same for the same. */
  | { turn: number; lookups: Lookups; text: string }
  /** The definition cannot be carried out, or its shape is wrong. */
  | { turn: number; problems: Problem[] };
