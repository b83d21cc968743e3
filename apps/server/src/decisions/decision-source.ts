import { createHash } from 'node:crypto';
import type { FieldValue } from '@haycart/core';
import type { DecisionAction, DecisionLine, DecisionShape } from '@haycart/api';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';

/** What somebody decided, with what the action needs besides. */
export interface Verdict {
  action: DecisionAction;
  /** The key of an option, for a new answer. */
  option?: string | undefined;
  /** The record that a submission means, or that stays when two become one. */
  record?: string | undefined;
  /** For records that become one: values chosen otherwise than by the rules; null is blank. */
  values?: Record<string, FieldValue | null> | undefined;
  /** Whether all that hangs together becomes one. */
  whole?: boolean | undefined;
}

/** What a decision shows beyond its line. */
export type DecisionDetails = Omit<DecisionShape, keyof DecisionLine>;

export const NO_DETAILS: Omit<DecisionDetails, 'actions'> = {
  intake: null,
  routes: [],
  examples: [],
  answer: null,
  pair: null,
  which: null,
  drift: null,
  repair: null,
};

/** One kind of things that wait for a person: what there is, what it is about, and how it is decided. */
export interface DecisionSource<Line extends DecisionLine = DecisionLine> {
  lines(tx: WorkspaceTx): Promise<Line[]>;
  /** How many lines there are; every page asks, so it costs no more than counting. */
  count(tx: WorkspaceTx): Promise<number>;
  details(tx: WorkspaceTx, line: Line): Promise<DecisionDetails>;
  /** Does what was decided; leaving it is done for every source alike. Answers what was done, in a sentence. */
  decide(tx: WorkspaceTx, line: Line, verdict: Verdict, by: Caller['by']): Promise<string>;
}

/** The same id for the same thing, however often it is asked. In SQL: `md5` of the parts, joined by a line feed. */
export function decisionId(kind: string, ...parts: string[]): string {
  return `${kind}.${createHash('md5').update(parts.join('\n')).digest('hex')}`;
}
