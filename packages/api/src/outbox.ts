import type { JsonValue } from '@haycart/core';

export const OUTBOX_STATES = ['waiting', 'done', 'given-up', 'cancelled', 'returned'] as const;
export type OutboxState = (typeof OUTBOX_STATES)[number];

/** Something that a run sends to the outside. */
export interface OutboxLine {
  id: string;
  /** How it is sent: `post`. */
  kind: string;
  /** Where to: for a post its address. */
  to: string;
  state: OutboxState;
  /** How often it was tried. */
  attempts: number;
  /** The run that sends it, and the route and the submission of that. */
  run: string;
  route: { id: string; name: string };
  submission: string;
  createdAt: string;
  /** When it is tried next, while it waits. ISO 8601 */
  dueAt: string | null;
  doneAt: string | null;
  /** Why the latest try failed; null after none, and once it is done. */
  lastError: string | null;
}

export interface OutboxShape extends OutboxLine {
  /** The same for each try, so that a receiver can tell that it has it already. */
  key: string;
  body: JsonValue;
  /** How many others go out, or went, as one with it. */
  together: number;
}

/** With what posts are signed. */
export interface SigningShape {
  /** As Standard Webhooks defines: `whsec_…`. */
  secret: string;
}
