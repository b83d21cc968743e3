import type { JsonValue, RecordKind } from '@haycart/core';
import type { Tried } from '../../platform/outgoing/posted';

/** Something from the outbox, to be sent. */
export interface DueItem {
  id: string;
  workspaceId: string;
  kind: string;
  target: string;
  key: string;
  body: JsonValue;
  /** The record that it is about. */
  record: { kind: RecordKind; id: string } | null;
  tries: number;
  /** When its run put it out; and the moment at which it was taken to be sent. */
  createdAt: Date;
  takenAt: Date;
  /** Whether it goes out as one with others; and the one under whose key it went, once it was tried. */
  together: boolean;
  sentWith: string | null;
}

/**
 * What came of a try. `unwanted`: it is not sent since its receiver does not want it, which is no failure. `early`: it was not
 * tried, since its receiver wants nothing now, and may be in so many seconds.
 */
export type Performed = Tried | { ok: false; why: string; unwanted: true } | Early;

export interface Early {
  ok: false;
  why: string;
  early: number;
}

/** Sends one kind of thing. A registry entry: add a file and a line in `registry.ts`. */
export interface Performer {
  /** As the effects name it in what they put out. */
  readonly kind: string;
  /** Whether its receiver wants nothing now; `null` where it may be tried at once. */
  tooEarly?(item: DueItem): Promise<Early | null>;
  /** How many its receiver takes a minute; `null` for any number. */
  perMinute?(item: DueItem): Promise<number | null>;
  /** Tries once. What it throws counts as a try that failed. `others`: what goes out as one with it, under its key. */
  perform(item: DueItem, stopping: AbortSignal, others: readonly DueItem[]): Promise<Performed>;
}

/** The performers there are, under a token. */
export const PERFORMERS = Symbol('performers');
