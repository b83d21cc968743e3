import type { DecidedOwner, NamedOwner } from '../../assignment/choose-owner';
import type { Counters } from '../../assignment/counters';
import type { Destination } from '../../destination/destination';
import type { FieldValues } from '../../diff/record';
import type { GivenAnswer } from '../../hold/hold';
import type { FinisherContext } from '../../value/finishers/finisher';
import type { PartReader } from '../../value/work-out-value';
import type { KnownRecords } from '../../identity/known-records';
import type { PlannedWrite } from './plan';
import type { MatchAnswer } from './plan-match';
import type { Submission } from '../../payload/submission';

/** What planning needs besides the submission and the known records. */
export interface Setting {
  destination: Destination;
  /** For each write of the route the id that its record gets if one is created. */
  newIds: Record<string, string>;
  /** What a person answered who was asked which record is meant, by write. */
  answers?: Readonly<Record<string, MatchAnswer>> | undefined;
  /** What was said by those who were asked before anything is written, by the place of the hold in the route. */
  answered?: Readonly<Record<number, GivenAnswer>> | undefined;
  /** The address by which one of those who are asked by mail answers; one that leads nowhere when not said. */
  link?: ((ask: number) => string) | undefined;
  /** Whether tables are asked that the run itself does not get to: for whoever wants to see what they say. */
  allTables?: boolean | undefined;
  /** Whose turn it is; when not said, that of those who stand first. */
  counters?: Counters | undefined;
}

/** What one write of a route is planned upon. */
export interface WriteContext {
  submission: Submission;
  known: KnownRecords;
  setting: Setting;
  read: PartReader;
  /** Whom a table names. */
  ownerOf: (decided: DecidedOwner) => NamedOwner | null;
  finishing: FinisherContext;
  earlier: readonly PlannedWrite[];
  /** The values of the records written earlier, by write. */
  written: ReadonlyMap<string, FieldValues>;
}
