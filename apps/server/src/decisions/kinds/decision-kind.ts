import { createHash } from 'node:crypto';
import type { FieldValue } from '@haycart/core';
import type { DecisionChoice, DecisionLine, DecisionShape } from '@haycart/api';
import type { Caller } from '../../platform/auth/caller';
import type { WorkspaceTx } from '../../platform/database/database';

/** What somebody decided, with what the action needs besides. */
export interface Verdict {
  action: string;
  /** The key of an option, for a new answer. */
  option?: string | undefined;
  /** The record that a submission means, or that stays when two become one. */
  record?: string | undefined;
  /** For records that become one: values chosen otherwise than by the rules; null is blank. */
  values?: Record<string, FieldValue | null> | undefined;
  /** Whether all that hangs together becomes one. */
  whole?: boolean | undefined;
  /** Why, in the words of whoever decided. */
  note?: string | undefined;
}

/** How the lines of a kind are told and ordered. */
export interface KindOfLine {
  kind: string;
  title: string;
  /** Where they stand in the list: the smallest first. */
  rank: number;
  isFailure?: boolean;
  /** Whether lines stay as their kind gives them; otherwise those of most submissions stand first, then the latest. */
  inOrder?: boolean;
  about: (line: { subject: string; detail: string }) => string;
}

/** A line as its kind knows it. */
export interface WaitingLine extends DecisionLine {
  rank: number;
  inOrder: boolean;
}

/** What a kind says of one line; its id is the same for the same thing, however often it is asked. */
export type LineFacts = Pick<DecisionLine, 'id' | 'subject' | 'detail' | 'count' | 'at' | 'like'>;

/** What a decision shows beyond its line. */
export type DecisionDetails = Omit<DecisionShape, keyof DecisionLine>;

/** The choice that every kind may offer; it is done for all alike. */
export const LEAVE: DecisionChoice = { action: 'leave', label: 'Leave it', key: 'x' };

/**
 * A kind of things that wait for a person, or several that are decided alike: what there is, what it is about, and how it
 * is decided. Its class stands in `registry.ts`, and needs nothing else to be listed, counted, shown and decided.
 */
export interface DecisionKind<Line extends WaitingLine = WaitingLine> {
  /** The first lines, or the one with an id where it is of this kind. */
  lines(tx: WorkspaceTx, asked: AskedLines): Promise<Line[]>;
  /** How many lines there are, `MOST_COUNTED` at most; every page asks, so it costs no more than counting. */
  count(tx: WorkspaceTx): Promise<number>;
  details(tx: WorkspaceTx, line: Line): Promise<DecisionDetails>;
  /**
   * Does what was decided; leaving it is done for every kind alike. Returns what was done, in a sentence.
   *
   * @throws ProblemError 422 for an action that is none of its choices.
   */
  decide(tx: WorkspaceTx, line: Line, verdict: Verdict, by: Caller['by']): Promise<string>;
}

/** Which lines are asked for: the first so many, or the one with an id. */
export interface AskedLines {
  most: number;
  id?: string;
}

/** So many of a kind are told apart from more, in the count that every page shows. */
export const MOST_COUNTED = 1_000;

/** Where the kinds of the registry are injected. */
export const KINDS = Symbol('kinds of decisions');

/** A line with the words of its kind. */
export function lineOf(of: KindOfLine, facts: LineFacts): WaitingLine {
  const { kind, title, rank, isFailure = false, inOrder = false, about } = of;
  return { ...facts, kind, title, rank, isFailure, inOrder, about: about(facts) };
}

/** An id for the same thing, however often it is asked. In SQL: `md5` of the parts, joined by a line feed. */
export function decisionId(kind: string, ...parts: string[]): string {
  return `${kind}.${createHash('md5').update(parts.join('\n')).digest('hex')}`;
}
