import type { JsonValue } from '@haycart/core';

/** Something from the outbox, to be sent. */
export interface DueItem {
  id: string;
  workspaceId: string;
  kind: string;
  target: string;
  key: string;
  body: JsonValue;
  tries: number;
}

/** What came of one try. `again`: whether another try may help; `after`: the seconds that the receiver asks to wait. */
export type Performed = { ok: true } | { ok: false; why: string; again: boolean; after?: number };

/** Sends one kind of thing. A registry entry: add a file and a line in `registry.ts`. */
export interface Performer {
  /** As the effects name it in what they put out. */
  readonly kind: string;
  /** Tries once. What it throws counts as a try that failed. */
  perform(item: DueItem, stopping: AbortSignal): Promise<Performed>;
}

/** The performers there are, under a token. */
export const PERFORMERS = Symbol('performers');
