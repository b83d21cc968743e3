import type { Destination } from '../destination/destination';
import type { Submission } from '../payload/submission';
import type { Counters } from './counters';

/** Who gets something, and how that came about. */
export interface Assigned {
  /** The key of the person; `null` when nobody can take it. */
  person: string | null;
  /** By how much the counters that decided it go on, once for the run. */
  advance: Readonly<Record<string, number>>;
  /** The rest of a sentence about the person: `in turn in North`. */
  why: string;
  /** The team that it was for, where one took turns or keeps what it has. */
  team?: string;
  /** Where turns were taken: the shares of those who could have got it. */
  shares?: Readonly<Record<string, number>>;
}

/** What is known where somebody is chosen. */
export interface AssignmentGround {
  submission: Pick<Submission, 'origin' | 'receivedAt'>;
  destination: Destination;
  counters: Counters;
  /** The people who look after the contact and the company already. */
  owners?: Partial<Record<'contact' | 'company', string>> | undefined;
  /** What it is worth, in minor units of the workspace's currency; nothing when not said. */
  worth?: number | undefined;
  /** Who is passed over, such as those who had it before. */
  without?: readonly string[] | undefined;
}
