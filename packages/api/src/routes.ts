import type {
  AccountStep,
  Destination,
  JsonValue,
  KnownRecord,
  Link,
  Plan,
  PlanDifference,
  Problem,
  RouteDefinition,
  RouteInWords,
} from '@haycart/core';
import type { IntakeLine, ProfileShape } from './intakes';
import type { Page } from './page';
import type { RunOutcome, SubmissionShape } from './submissions';

export interface RouteLine {
  id: string;
  name: string;
  state: 'live' | 'paused';
  version: number | null;
  /** Whether the draft differs from the version that runs. */
  draftDiffers: boolean;
  words: RouteInWords;
  from: { key: string; name: string }[];
  /** Of the last 30 days. */
  runs: Record<RunOutcome, number>;
  /** The day (UTC) on which the latest submission came that went through it; null for none. */
  lastRunOn: string | null;
  /** When its draft was saved last, and by whom; null while nobody did since it was made. */
  draftSavedAt: string;
  draftSavedBy: string | null;
}

export interface RouteShape extends RouteLine {
  draft: RouteDefinition;
  /** Counts the changes of the draft; a save names the one that it was made on (`If-Match`). */
  revision: number;
  published: RouteDefinition | null;
  problems: Problem[];
}

/** A plan that was not carried out, with its account in sentences. */
export type Rehearsal = Plan & { account: AccountStep[]; names: Record<string, string> };

/** Existing records as far as planning must know them; see the core’s `lookupsFor`. */
export interface KnownShape {
  records: KnownRecord[];
  links: Link[];
  /** The counters that were asked for, such as whose turn it is. */
  counters: Record<string, number>;
  /** What they are called, by id: `contact 12 Ada Weir`. */
  names: Record<string, string>;
}

/** How many of the latest submissions meet a condition. */
export interface PassingShape {
  looked: number;
  pass: number;
  /** Submissions that fail by the writing of one value alone, by the clause that stands in their way. */
  nearMisses: { clause: string; differs: 'capitals' | 'writing'; count: number; example: string }[];
}

/** How many of the latest submissions a route’s page steps through to rehearse it. */
export const ROUTE_SAMPLES = 50;

/** Everything that the page of a route shows when it is opened. */
export interface RouteSheetShape {
  route: RouteShape;
  intakes: IntakeLine[];
  destination: Destination;
  /** What each route says, for suggestions. */
  definitions: RouteDefinitionLine[];
  cases: RouteCaseShape[];
  /** What the draft’s first intake sent; null where it takes from none that is there. */
  samples: { intake: string; latest: Page<SubmissionShape>; profile: ProfileShape } | null;
}

/** What a route says now: the version that runs, or its draft where there is none. */
export interface RouteDefinitionLine {
  id: string;
  definition: RouteDefinition;
}

/** A published version of a route. */
export interface RouteVersionLine {
  version: number;
  note: string | null;
  publishedBy: string;
  publishedAt: string;
  definition: RouteDefinition;
}

/** How many runs would end in each way. */
export type PlannedOutcomes = Record<Plan['outcome'], number>;

/** Two versions of a route over past submissions: how many go which way, and how they differ. Nothing is written. */
export interface ComparisonShape {
  id: string;
  state: 'working' | 'done' | 'cancelled' | 'failed';
  /** How many submissions there are to look at, and how many were looked at. */
  total: number;
  looked: number;
  startedAt: string;
  finishedAt: string | null;
  /** Null where there is no version to compare with. */
  before: { name: string; outcomes: PlannedOutcomes } | null;
  after: { name: string; outcomes: PlannedOutcomes };
  /** How many submissions differ. */
  differ: number;
  /** The kinds of differences, most often first. */
  groups: DifferenceGroup[];
  /** What the tables of the second decided. */
  tables: TableFigures[];
}

/** How many submissions each row of a table took. */
export interface TableFigures {
  table: string;
  rows: RowFigure[];
  /** Of those that no row took. */
  none: RowFigure;
}

export interface RowFigure {
  count: number;
  /** Some of the submissions, the latest first. */
  examples: { submission: string; who: string; at: string }[];
}

export interface DifferenceGroup {
  kind: string;
  text: string;
  count: number;
  /** Some of them. */
  examples: { submission: string; who: string; before: string; after: string }[];
}

/** A sample and the outcome agreed on, by which a route is checked before it is published. */
export interface RouteCaseShape {
  id: string;
  name: string;
  payload: JsonValue;
  receivedAt: string;
  savedBy: string;
  savedAt: string;
  outcome: Plan['outcome'];
}

/** What a definition does with a saved case: nothing else than agreed, or how it differs. */
export interface CaseResult {
  id: string;
  name: string;
  differences: PlanDifference[];
}

/** Who else has a route’s sheet open, by name. */
export interface PresenceShape {
  others: string[];
}
