import type {
  AccountStep,
  FieldDefinition,
  FieldValues,
  FormDefinition,
  JsonValue,
  Pipeline,
  Plan,
  Problem,
  RecordKind,
  RecordsDiff,
  RouteDefinition,
  RouteInWords,
  ValueTrace,
  FieldValue,
  Visit,
} from '@haycart/core';

/** A page of a list: `next` is given back as `after`, and absent on the last page. */
export interface Page<Item> {
  items: Item[];
  next?: string;
  total?: number;
}

export type RunOutcome = 'written' | 'held' | 'skipped' | 'failed' | 'taken-back';
/** Shown in this order everywhere. */
export const RUN_OUTCOMES: readonly RunOutcome[] = ['written', 'held', 'skipped', 'failed', 'taken-back'];

export interface SessionShape {
  person: { id: string; name: string; email: string };
  workspace: { id: string; key: string; name: string; defaultCountry: string; defaultCurrency: string };
  demo: boolean;
}

/** What the sign-in page may know before anybody has signed in. */
export interface SignInOptions {
  /** No workspace exists yet: the first one is made with the set-up code. */
  firstStart: boolean;
  demoPeople: { workspace: string; name: string; email: string; about: string }[];
}

export interface IntakeShape {
  id: string;
  key: string;
  kind: 'form' | 'endpoint';
  name: string;
  state: 'live' | 'closed';
  slug: string | null;
  signed: boolean;
  perMinute: number | null;
  /** Where to post to, or where the form is. */
  address: string;
  form: FormDefinition | null;
}

export interface IntakeLine extends IntakeShape {
  /** Submissions a day over the last 30 days, oldest first. */
  month: number[];
  submissions: number;
  failed: number;
  lastAt: string | null;
  routes: { id: string; name: string; state: 'live' | 'paused' }[];
}

export interface RunLine {
  id: string;
  route: { id: string; name: string };
  outcome: RunOutcome;
  summary: string;
}

export interface SubmissionShape {
  id: string;
  intake: { key: string; name: string };
  receivedAt: string;
  state: 'waiting' | 'routed';
  /** Null when the body cannot be read; `unreadable` says why. */
  payload: JsonValue | null;
  unreadable: string | null;
  visit: Visit;
  source: string;
  /** Who sent it, as far as the payload tells. */
  who: string;
  email: string;
  runs: RunLine[];
}

/** A submission with its body as it came, for when it cannot be read. */
export interface SubmissionDetail extends SubmissionShape {
  raw: string;
  tries: number;
}

export interface RunShape extends RunLine {
  submission: string;
  version: number;
  reason: { code: string; text: string } | null;
  plan: Plan | null;
  startedAt: string;
  finishedAt: string;
  receivedAt: string;
  account: AccountStep[];
}

export interface RecordShape {
  id: string;
  kind: RecordKind;
  number: number;
  name: string;
  values: FieldValues;
  links: Record<string, RecordLinkShape[]>;
  owner: string | null;
  tags: string[];
  createdAt: string;
  updatedAt: string;
}

export interface RecordLinkShape {
  id: string;
  kind: RecordKind;
  number: number;
  name: string;
}

export interface HistoryEntry {
  id: string;
  at: string;
  cause: { kind: 'run' | 'person' | 'import' | 'merge' | 'take-back'; id: string; label: string; submission?: string };
  diff: RecordsDiff;
  values: {
    field: string;
    label: string;
    before: FieldValue | null;
    after: FieldValue | null;
    trace: ValueTrace | null;
  }[];
}

export interface TouchShape {
  at: string;
  channel: string;
  source: string;
  medium: string | null;
  campaign: string | null;
  page: string | null;
}

export interface RouteLine {
  id: string;
  name: string;
  state: 'live' | 'paused';
  version: number | null;
  /** Whether the draft differs from the version that runs. */
  draftDiffers: boolean;
  words: RouteInWords;
  from: { key: string; name: string }[];
  runs: Record<RunOutcome, number>;
}

export interface RouteShape extends RouteLine {
  draft: RouteDefinition;
  draftSavedAt: string;
  published: RouteDefinition | null;
  problems: Problem[];
}

/** A plan that was not carried out, with its account in sentences. */
export type Rehearsal = Plan & { account: AccountStep[]; names: Record<string, string> };

export interface FieldKeyShape {
  key: string;
  /** Of the latest submissions looked at, how many had it. */
  seen: number;
  example: string;
}

export interface PipelineShape extends Pipeline {
  id: string;
}

/** What stands in a place of the pipelines, and which routes name it. */
export interface PlaceUse {
  pipeline: string;
  stage: string;
  records: number;
  routes: { id: string; name: string }[];
}

/** A removal in the set-up, with what followed from it. */
export interface SetUpChange {
  id: string;
  at: string;
  by: string;
  text: string;
  takenBackAt: string | null;
}

export interface FieldShape extends FieldDefinition {
  id: string | null;
  /** Out of use: its values stay on the records. */
  retired?: boolean;
}

/** A field with what feeds it and how full it is. */
export interface FieldUse extends FieldShape {
  /** How many records of its kind there are, and how many of them hold a value. */
  records: number;
  filled: number;
  lastFilledAt: string | null;
  routes: { id: string; name: string }[];
}

export const AGE_BANDS = ['day', 'week', 'month', 'longer'] as const;
export type AgeBand = (typeof AGE_BANDS)[number];

export interface DealCard {
  id: string;
  number: number;
  name: string;
  value: { amount: number; currency: string } | null;
  owner: string | null;
  source: string | null;
  stageSince: string;
}

export interface PipelineGrid {
  pipeline: PipelineShape;
  rows: {
    stage: string;
    count: number;
    worth: { currency: string; amount: number }[];
    /** Of the deals that left this stage in the last 90 days, the share that went forward; null when none did. */
    goOn: number | null;
    cells: Record<AgeBand, { count: number; deals: DealCard[] }>;
  }[];
  closed: { state: 'won' | 'lost'; count: number; worth: { currency: string; amount: number }[] }[];
}

/** Today's live figures for the band across the top. */
export interface BandFigures {
  intakesLive: number;
  submissionsToday: number;
  routesLive: number;
  routesDraft: number;
  recordsToday: number;
  dealsMovedToday: number;
  waiting: number;
}

export interface HomeShape {
  arrived: number;
  written: number;
  held: number;
  skipped: number;
  failed: number;
  unrouted: number;
  waiting: number;
  flows: { from: string; to: string; outcome: RunOutcome; count: number }[];
  /** Seconds from arrival to written. */
  median: number | null;
  p95: number | null;
  quiet: { key: string; name: string; lastAt: string; usualPerDay: number }[];
  failures: { run: string; submission: string; route: string; reason: string; count: number; at: string }[];
  changed: { route: string; id: string; version: number; by: string; note: string | null; at: string }[];
}

export interface SearchHit {
  kind: RecordKind | 'intake' | 'route';
  id: string;
  name: string;
  detail: string;
}

/** What server-sent events tell: which kinds of thing changed. Nothing of the things themselves. */
export const EVENT_TOPICS = ['submissions', 'runs', 'records', 'routes', 'intakes', 'pipelines', 'fields'] as const;
export type EventTopic = (typeof EVENT_TOPICS)[number];
