import type { Destination } from '../destination/destination';
import type { FieldValues } from '../diff/record';
import type { FinisherContext } from '../mapping/finishers/finisher';
import type { PartReader } from '../mapping/value';
import type { KnownRecords } from './known-records';
import type { PlannedWrite } from './plan';
import type { MatchAnswer } from './plan-match';
import type { Submission } from './submission';

/** What planning needs besides the submission and the known records. */
export interface Setting {
  destination: Destination;
  /** For each write of the route the id that its record gets if one is created. */
  newIds: Record<string, string>;
  /** What a person answered who was asked which record is meant, by write. */
  answers?: Readonly<Record<string, MatchAnswer>> | undefined;
}

/** What one write of a route is planned upon. */
export interface WriteContext {
  submission: Submission;
  known: KnownRecords;
  setting: Setting;
  read: PartReader;
  finishing: FinisherContext;
  earlier: readonly PlannedWrite[];
  /** The values of the records written earlier, by write. */
  written: ReadonlyMap<string, FieldValues>;
}
