import type { FieldValue, RecordKind } from '../../diff/record';
import type { PlannedAssignment } from '../../assignment/planned-assignments';
import type { DecidedTrace } from '../../decision/decisions';
import type { RecordsDiff } from '../../diff/records-diff';
import type { PlannedEffect } from '../../effect/effect';
import type { PlannedAsk } from '../../hold/hold';
import type { ValueTrace } from '../../value/work-out-value';
import type { ReasonCode } from '../../codes';
import type { Problem } from '../../problem';
import type { Touch } from '../../source/source';

/** How a run ends that writes nothing. */
export type StoppedOutcome = 'hold' | 'skip' | 'fail';

/** What a run would do, computed but not done. */
export interface Plan {
  outcome: 'write' | StoppedOutcome;
  /** Why, when it is not `write`. */
  reason: Reason | null;
  /** One for each write of the route, in its order, up to where the run stopped. */
  writes: PlannedWrite[];
  diff: RecordsDiff;
  touches: Touch[];
  problems: Problem[];
  /** What the tables decided that were asked. Absent when none was. */
  decided?: readonly DecidedTrace[];
  /** What the follow-ups do, in their order; what they would do while a person is asked. Absent when the route has none, or nothing is written. */
  effects?: PlannedEffect[];
  /** Who is asked by mail before anything is written. Absent when nobody is. */
  asks?: PlannedAsk[];
  /** What those answered who were asked, without full stops: `Hanne Lie said yes`. Absent when nobody did. */
  answered?: string[];
  /** Records that become one. Absent when there are none. */
  merges?: PlannedRunMerge[];
  /** Options that fields get, where the route adds values that it does not know. Absent when there are none. */
  newOptions?: NewOption[];
  /** Who is given what, one record for each person. Absent when nobody is given anything. */
  given?: PlannedAssignment[];
  /** By how much counters go on, such as whose turn it is in a team. Absent when none does. */
  advance?: Record<string, number>;
}

/** A record that becomes one with another, since a submission shows that both are the same. */
export interface PlannedRunMerge {
  into: string;
  from: string;
  /** What the merge by itself does, before anything is filled in. */
  diff: RecordsDiff;
}

/** An option that a field is to get. */
export interface NewOption {
  record: RecordKind;
  field: string;
  option: { key: string; label: string };
}

export interface Reason {
  code: ReasonCode;
  /** A sentence a person can act on. */
  text: string;
  /** The value that only a person can place, and the field it is for. */
  about?: { as: string; field: string; value: string };
  /** The place in the route of the hold that asks. */
  hold?: number;
}

/** What one write of the route does to one record, and how that came about. */
export interface PlannedWrite {
  as: string;
  record: RecordKind;
  /** The record created or recognised; `null` when nothing is written. */
  id: string | null;
  did: 'create' | 'change' | 'keep' | 'none';
  match: MatchTrace;
  fields: FieldTrace[];
  /** Ids of the records it is newly linked to. */
  linked: string[];
  place: PlaceTrace | null;
  /** Why nothing is written, where the write has a condition that is not met: its clauses in words. */
  unmet?: string;
  /** Whether nothing is written since the route leaves such records out: who is unknown, known, or several. */
  leftOut?: true;
}

export interface MatchTrace {
  /** The rule that recognised the record, `open-deal`, or `person` who was asked; `null` when none did. */
  by: string | null;
  /** The key looked for. */
  key: string | null;
  found: number;
  /** Those that came into question, the likeliest first; absent where a key told the one. */
  candidates?: MatchCandidate[];
  /** What came in for the record, where a person is asked. */
  came?: { field: string; value: FieldValue }[];
  /** What was found and was not enough, in words. */
  notEnough?: string[];
  /** Records that turned out to be this one too, and become one with it. */
  merged?: string[];
}

/** A record that may be the one. */
export interface MatchCandidate {
  id: string;
  /** How like they are, 0 to 1; `null` where a key was compared rather than everything. */
  probability: number | null;
  /** What the likeness comes from, in bits. */
  shares?: CandidateShare[];
}

export interface CandidateShare {
  of: string;
  label: string;
  bits: number;
  words: string;
}

/** What happens to one field, with the trace of the value that would be filled in. */
export interface FieldTrace {
  field: string;
  before: FieldValue | null;
  /** What the record holds afterwards. */
  after: FieldValue | null;
  /** What came in, when it differs from `after` since it was not written. */
  offered: FieldValue | null;
  did: 'write' | 'clear' | 'same' | 'keep' | 'blank';
  why:
    | 'unless-typed'
    | 'if-blank'
    | 'never'
    | 'later'
    | 'fill-blanks'
    | 'unreadable'
    | 'derived'
    | 'assigned'
    | 'marked'
    | null;
  /** Of somebody who was chosen, why: `in turn in North`. */
  said?: string;
  trace: ValueTrace | null;
}

export interface PlaceTrace {
  pipeline: string;
  stage: string;
  /** `stays`: it stands further on already. `left`: the route leaves an existing deal as it is. */
  did: 'placed' | 'moved' | 'stays' | 'left';
}
