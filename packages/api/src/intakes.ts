import type { FormDefinition } from '@haycart/core';

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
  kind: 'form' | 'endpoint';
  name: string;
  state: 'draft' | 'live' | 'closed';
  slug: string | null;
  signed: boolean;
  perMinute: number | null;
  /** Where to post to, or where the form is. */
  address: string;
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
}

export interface IntakeLine extends IntakeShape {
  /** Submissions a day over the last 30 days, oldest first. */
  month: number[];
  submissions: number;
  failed: number;
  lastAt: string | null;
  routes: { id: string; name: string; state: 'live' | 'paused' }[];
}

export interface FieldKeyShape {
  key: string;
  /** Of the latest submissions looked at, how many had it. */
  seen: number;
  example: string;
}
