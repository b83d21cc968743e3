import type { Drift, FieldOption, RecordKind } from '@haycart/core';
import type { LookAlikeGroup, MergeRehearsal, WhichRecord } from './identity';
import type { DifferenceGroup } from './routes';

/** What waits for a person, in the order in which it is listed. */
export const DECISION_KINDS = [
  'which-record',
  'renamed',
  'failed',
  'undelivered',
  'held',
  'paused',
  'new-answer',
  'look-alike',
  'stopped',
  'changed',
  'appeared',
  'set-aside',
] as const;
export type DecisionKind = (typeof DECISION_KINDS)[number];

/** What somebody may decide; which of them there are depends on the kind. */
export const DECISION_ACTIONS = [
  /** Lets the routes read a renamed field under its new name too. */
  'repair',
  /** Routes what failed or was held again. */
  'run-again',
  /** Sends what was given up again. */
  'send-again',
  /** Lets a paused route run. */
  'resume',
  /** Says which option a new answer means. */
  'means',
  /** Makes a new answer an option. */
  'add-option',
  /** Two records are one; or a submission means a record. */
  'same',
  /** Two records are two; it is remembered for ever. */
  'different',
  /** A submission means a record that is not there yet. */
  'new-record',
  /** A submission means no record at all. */
  'no-record',
  /** It is put off, behind all else. */
  'later',
  /** Routes what was set aside. */
  'release',
  /** Nothing is to be done; it is not asked again unless more comes. */
  'leave',
] as const;
export type DecisionAction = (typeof DECISION_ACTIONS)[number];

export interface DecisionLine {
  id: string;
  kind: DecisionKind;
  /** The route or intake that it is about. */
  subject: string;
  /** What it is, in a few words. */
  detail: string;
  /** How many submissions are concerned. */
  count: number;
  /** The latest of them. ISO 8601 */
  at: string;
  /** Those with the same word are alike, and may be decided alike. */
  like: string;
}

/** A decision with all that is needed to take it. */
export interface DecisionShape extends DecisionLine {
  actions: DecisionAction[];
  intake: { key: string; name: string } | null;
  routes: { id: string; name: string }[];
  examples: { submission: string; who: string; at: string; text: string }[];
  /** For a new answer: the field and its options. */
  answer: { record: RecordKind; label: string; value: string; options: FieldOption[] } | null;
  /** For drift: what changed, and the fields concerned as they arrived. */
  drift: { told: Drift; fields: { key: string; label: string; filled: number; examples: string[] }[] } | null;
  /** For two records that may be the same: what merging them would do, and what hangs together with them. */
  pair: { rehearsal: MergeRehearsal; group: LookAlikeGroup } | null;
  /** For a submission that may mean one of several records. */
  which: WhichRecord | null;
  /** What a repair would do; for a renamed field. */
  repair: RepairRehearsal | null;
}

/** What a repair would do; nothing is done. */
export interface RepairRehearsal {
  /** The routes that would get a new version, with what would change in each. */
  routes: { id: string; name: string; changes: string[] }[];
  /** How many runs that failed or were held would go again, and in how many records blanks would be filled in. */
  runsAgain: number;
  fillsIn: number;
  /** How what arrived since would come out otherwise. */
  groups: DifferenceGroup[];
}

export interface Decided {
  /** What was done, in a sentence. */
  text: string;
}
