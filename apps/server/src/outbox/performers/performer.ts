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
  /** When its run put it out. */
  createdAt: Date;
}

/** What came of a try; `unwanted`: it is not sent since its receiver does not want it, which is no failure. */
export type Performed = Tried | { ok: false; why: string; unwanted: true };

/** Sends one kind of thing. A registry entry: add a file and a line in `registry.ts`. */
export interface Performer {
  /** As the effects name it in what they put out. */
  readonly kind: string;
  /** Tries once. What it throws counts as a try that failed. */
  perform(item: DueItem, stopping: AbortSignal): Promise<Performed>;
}

/** The performers there are, under a token. */
export const PERFORMERS = Symbol('performers');
