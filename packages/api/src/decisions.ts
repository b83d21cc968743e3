import type { Drift, FieldOption, RecordKind } from '@haycart/core';
import type { LookAlikeGroup, MergeRehearsal, WhichRecord } from './identity';
import type { DifferenceGroup } from './routes';

/**
 * Something that waits for a person. All its words come from its kind (`apps/server/src/decisions/kinds`), so that who
 * shows it needs to know no kinds.
 */
export interface DecisionLine {
  id: string;
  kind: string;
  /** What kind it is, in a few words. */
  title: string;
  /** The route, intake, record or person that it is about. */
  subject: string;
  /** What it is, in a few words. */
  detail: string;
  /** What tells it from others of its kind: subject and detail, or one of them. */
  about: string;
  /** Whether something is broken, rather than waiting. */
  isFailure: boolean;
  /** How many submissions are concerned. */
  count: number;
  /** The latest of them. ISO 8601 */
  at: string;
  /** Those with the same word are alike, and may be decided alike. */
  like: string;
}

/** The first of what waits, and how many there are; of each kind a thousand at most are counted. */
export interface DecisionList {
  items: DecisionLine[];
  total: number;
}

/** What can be decided, with the key that decides it. */
export interface DecisionChoice {
  action: string;
  label: string;
  /** One small letter; `j`, `k`, `l` and `a` belong to the page. */
  key: string;
}

/** What a decision is about, and leads to. */
export interface DecisionThing {
  kind: 'intake' | 'route' | RecordKind;
  /** The id; of an intake its key. */
  id: string;
  name: string;
}

/** What is shown of a decision beside its words, for kinds that have more to show. */
export type DecisionView =
  | { as: 'plain' }
  /** What a run would do once somebody says yes, as sentences without a full stop; a reason may be given. */
  | { as: 'approval'; would: string[] }
  /** A value that no option stands for, and the options that it may mean. */
  | { as: 'answer'; record: RecordKind; label: string; value: string; options: FieldOption[] }
  /** What changed at a sender: the fields concerned as they arrived, and what a repair would do. */
  | {
      as: 'drift';
      told: Drift;
      fields: { key: string; label: string; filled: number; examples: string[] }[];
      repair: RepairRehearsal | null;
    }
  /** Two records that may be the same: what merging them would do, and what hangs together with them. */
  | { as: 'pair'; rehearsal: MergeRehearsal; group: LookAlikeGroup }
  /** A submission that may mean one of several records. */
  | ({ as: 'which' } & WhichRecord);

/** A decision with all that is needed to take it. */
export interface DecisionShape extends DecisionLine {
  /** What is to be decided, as a question or a statement. */
  question: string;
  /** What lies behind it, in a sentence or two. */
  story: string;
  /** What the choices do, in a sentence or two. */
  consequence: string;
  choices: DecisionChoice[];
  things: DecisionThing[];
  /** Submissions concerned; `text` tells them apart, where something does. */
  examples: { submission: string; who: string; at: string; text: string }[];
  view: DecisionView;
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
