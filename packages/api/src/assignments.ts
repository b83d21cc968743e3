import type { RecordKind } from '@haycart/core';

/** Until when a record is to be answered, and what came of it. */
export interface AnswerClock {
  /** When it was given to somebody. */
  at: string;
  /** The key of who got it. */
  person: string;
  due: string;
  /** When a person first did something about it; null: nobody has. */
  touchedAt: string | null;
  touchedBy: string | null;
}

/** Something that waits for its first answer. */
export interface AnswerLine {
  id: string;
  kind: RecordKind;
  /** The id of the record. */
  record: string;
  name: string;
  /** The key of who looks after it. */
  owner: string | null;
  at: string;
  due: string;
}

/** What one person of a team got in a time. */
export interface FairnessLine {
  /** The key of the person. */
  person: string;
  received: number;
  /** How many of them were given by turns, by shares or by load, and how many that would have been by everybody’s shares. */
  turns: number;
  intended: number;
  /** Open deals that the person looks after now, of whatever team. */
  open: number;
  /** Median of the seconds to the first touch; null: nothing was touched. */
  firstTouch: number | null;
  /** Of those with a promise that is over: how many were answered in time. */
  promised: number;
  inTime: number;
  /** Deals among them that are won. */
  won: number;
}

export interface FairnessTeam {
  /** Null: what routes give to somebody by name. */
  team: string | null;
  people: FairnessLine[];
}

/** One thing that was given, and why. */
export interface GivenLine {
  id: string;
  kind: RecordKind;
  record: string;
  /** Null: the record is not there any more. */
  name: string | null;
  person: string;
  team: string | null;
  why: string;
  at: string;
}

/** What would become of what somebody looks after. */
export interface HandOverPlan {
  /** Who would get how much of it, those with the most first; `null`: nobody can take it, and it stays. */
  people: { person: string | null; leads: number; deals: number; tasks: number }[];
}

/** Who got what in the last days. */
export interface Fairness {
  days: number;
  teams: FairnessTeam[];
}
