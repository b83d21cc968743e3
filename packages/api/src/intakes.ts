import type { DateOrder, FormDefinition, IntakeSource, ValueKind } from '@haycart/core';

/** Two versions of a form that share its visitors. */
export interface TrialShape {
  /** The earlier one. */
  version: number;
  /** How many of the visitors see the published one, 0 to 1. */
  share: number;
  since: string;
}

export interface IntakeShape {
  id: string;
  key: string;
  /** One of the core’s `INTAKE_KINDS`. */
  kind: string;
  /** What its kind asks when one is made. */
  settings: Record<string, unknown>;
  name: string;
  state: 'draft' | 'live' | 'closed';
  slug: string | null;
  signed: boolean;
  perMinute: number | null;
  /** Where it is reached from outside, such as where to post to; null where it is not. */
  address: string | null;
  /** The published form; null for other kinds and before the first time. */
  form: FormDefinition | null;
  /** The number of the published form; 0 before the first time. */
  version: number;
  archived: boolean;
  /** Filled in by colleagues alone, who sign in or have an entry link. */
  forColleagues: boolean;
  /** The earlier version that shares the visitors with the published one; null while all see the same. */
  trial: TrialShape | null;
  /** What a closed form says. */
  closedMessage: string | null;
  /** Where its submissions come from, as far as it says itself. */
  source: IntakeSource;
}

export interface IntakeLine extends IntakeShape {
  /** Submissions a day over the last 30 days, oldest first. */
  month: number[];
  submissions: number;
  failed: number;
  lastAt: string | null;
  routes: { id: string; name: string; state: 'live' | 'paused' }[];
  /** How much of the room for files is taken, 0 to 1: the intake's own, or the workspace's where that is fuller. */
  filesTaken: number;
}

/** What an intake has really received. */
export interface ProfileShape {
  submissions: number;
  /** How many fields more there are than are told apart. */
  beyond: number;
  /** In the order in which they were first seen. */
  fields: ProfileFieldShape[];
}

/** One field of an intake, as it arrived. */
export interface ProfileFieldShape {
  key: string;
  /** What people call it: the name that a person gave, the sender’s words, or the key. */
  label: string;
  /** Whether a person gave the name. */
  named: boolean;
  /** Where it stood last, as a JSON Pointer (RFC 6901). */
  pointer: string;
  kind: ValueKind;
  sent: number;
  filled: number;
  /** How many different values came; `more` where there were too many to count. */
  distinct: number;
  more: boolean;
  /** The values that came most, most often first. */
  values: { value: string; count: number }[];
  examples: string[];
  firstSeen: string;
  lastSeen: string;
  lastFilled: string | null;
  /** Other ways in which its key was written. */
  also: string[];
  /** For dates: which number is the day, where the values tell. */
  dateOrder: DateOrder | null;
}
