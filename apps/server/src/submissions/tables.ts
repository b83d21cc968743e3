import type { BodyFormat, Drift, Origin, Profile, Suspicion, Visit } from '@haycart/core';
import type { SubmissionState } from '@haycart/api';
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  check,
  date,
  foreignKey,
  index,
  integer,
  json,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uuid,
} from 'drizzle-orm/pg-core';
import { intake } from '../intakes/tables';
import { bytea, time, wordsColumn, workspaceId } from '../platform/database/columns';

/** What arrived, byte for byte. The row is its own queue entry: `waiting` until every route that takes it has run. */
export const submission = pgTable(
  'submission',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    intakeId: uuid('intake_id').notNull(),
    receivedAt: time('received_at').notNull(),
    format: text('format').$type<BodyFormat>().notNull(),
    body: bytea('body').notNull(),
    visit: jsonb('visit').$type<Visit>().notNull(),
    /** How it came in, where it was not posted. */
    origin: jsonb('origin').$type<Origin>().notNull().default({}),
    /**
     * `set-aside`: suspicious, so that it waits for a person; `cancelled`: its file was taken back before its turn; `unrouted`:
     * no route took it.
     */
    state: text('state').$type<SubmissionState>().notNull().default('waiting'),
    /** When it may be tried; later than its arrival only after a failed try. */
    dueAt: time('due_at').notNull(),
    /** Whether it lets what arrives meanwhile go first: a row of a file, or one of many that go through a route again. */
    givesWay: boolean('gives_way').notNull().default(false),
    /** Whether what its runs send stays unsent, since they are of old when a route catches up. */
    quiet: boolean('quiet').notNull().default(false),
    /** Failed tries in a row. */
    tries: integer('tries').notNull().default(0),
    /** Why it was set aside, if it was. */
    suspicion: jsonb('suspicion').$type<Suspicion>(),
    /** How often it was routed; more than once after a route was resumed or it was run again. */
    turns: integer('turns').notNull().default(0),
    /** The routes that it waits for; null: every route that takes it. */
    dueRoutes: uuid('due_routes').array(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.intakeId], foreignColumns: [intake.workspaceId, intake.id] }),
    check('submission_state', sql`${t.state} in ('waiting', 'routed', 'unrouted', 'set-aside', 'cancelled')`),
    index('submission_waiting')
      .on(t.workspaceId, t.givesWay, t.dueAt, t.id)
      .where(sql`state = 'waiting'`),
    index('submission_not_routed')
      .on(t.workspaceId, t.state, t.receivedAt.desc().nullsFirst(), t.id.desc().nullsFirst())
      .where(sql`state <> 'routed'`),
    index('submission_received').on(t.workspaceId, t.receivedAt.desc().nullsFirst(), t.id.desc().nullsFirst()),
    index('submission_entered')
      .on(t.workspaceId, t.intakeId, sql`(origin ->> 'enteredBy')`, t.receivedAt)
      .where(sql`origin ? 'enteredBy'`),
    index('submission_of_intake').on(
      t.workspaceId,
      t.intakeId,
      t.receivedAt.desc().nullsFirst(),
      t.id.desc().nullsFirst(),
    ),
  ],
);

/** By what a submission is found, and sorted: made of its payload a moment after it came. */
export const submissionSearch = pgTable(
  'submission_search',
  {
    workspaceId: workspaceId(),
    submissionId: uuid('submission_id').notNull(),
    /** Who sent it and the address, in lower case, as lists are sorted by them; blank where nothing tells. */
    who: text('who').notNull(),
    email: text('email').notNull(),
    words: wordsColumn('words').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.submissionId] }),
    foreignKey({ columns: [t.workspaceId, t.submissionId], foreignColumns: [submission.workspaceId, submission.id] }),
    index('submission_search_words').using('gin', t.words),
    index('submission_search_who').on(t.workspaceId, t.who, t.submissionId),
    index('submission_search_email').on(t.workspaceId, t.email, t.submissionId),
  ],
);

/** Up to which id all submissions of a workspace are read for the search. */
export const submissionReading = pgTable(
  'submission_reading',
  { workspaceId: workspaceId(), until: uuid('until').notNull() },
  (t) => [primaryKey({ columns: [t.workspaceId] })],
);

/**
 * How many submissions arrived at an intake, by day (UTC): counted when they are read for the search, each once. Rows are
 * added up, and folded by a job.
 */
export const arrivalCount = pgTable(
  'arrival_count',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull().defaultRandom(),
    day: date('day').notNull(),
    intakeId: uuid('intake_id').notNull(),
    arrivals: integer('arrivals').notNull(),
    folded: boolean('folded').notNull().default(false),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.intakeId], foreignColumns: [intake.workspaceId, intake.id] }),
    index('arrival_count_day').on(t.workspaceId, t.day),
    index('arrival_count_unfolded')
      .on(t.workspaceId, t.day)
      .where(sql`not folded`),
  ],
);

/** The number of submissions acknowledged at an intake on a day (UTC). Counted when the sender is answered, not from stored submissions. */
export const acknowledgedCount = pgTable(
  'acknowledged_count',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull().defaultRandom(),
    day: date('day').notNull(),
    intakeId: uuid('intake_id').notNull(),
    acknowledged: integer('acknowledged').notNull(),
    folded: boolean('folded').notNull().default(false),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.intakeId], foreignColumns: [intake.workspaceId, intake.id] }),
    index('acknowledged_count_day').on(t.workspaceId, t.day),
    index('acknowledged_count_unfolded')
      .on(t.workspaceId, t.day)
      .where(sql`not folded`),
  ],
);

/** A file that came with a submission; its payload names it by id. */
export const submissionFile = pgTable(
  'submission_file',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    submissionId: uuid('submission_id').notNull(),
    name: text('name').notNull(),
    type: text('type').notNull(),
    bytes: bytea('bytes').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.submissionId], foreignColumns: [submission.workspaceId, submission.id] }),
    index('submission_file_of').on(t.workspaceId, t.submissionId),
  ],
);

/** How many bytes of files an intake has brought: counted as they come, so that a quota costs no sum. */
export const fileUsage = pgTable(
  'file_usage',
  {
    workspaceId: workspaceId(),
    intakeId: uuid('intake_id').notNull(),
    bytes: bigint('bytes', { mode: 'number' }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.intakeId] }),
    foreignKey({ columns: [t.workspaceId, t.intakeId], foreignColumns: [intake.workspaceId, intake.id] }),
  ],
);

/** What an intake has really received, learnt up to a submission; see the core's `Profile`. */
export const intakeProfile = pgTable(
  'intake_profile',
  {
    workspaceId: workspaceId(),
    intakeId: uuid('intake_id').notNull(),
    /** `json`, not `jsonb`: the order of the fields is kept. */
    profile: json('profile').$type<Profile>().notNull(),
    /** The last submission that was learnt from. */
    uptoAt: time('upto_at').notNull(),
    uptoId: uuid('upto_id').notNull(),
    /** What people call the fields that the sender gives no name, by key. */
    names: jsonb('names').$type<Record<string, string>>().notNull().default({}),
    /** How its fields changed, as the profile tells; see the core’s `Drift`. */
    drift: jsonb('drift').$type<Drift[]>().notNull().default([]),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.intakeId] }),
    foreignKey({ columns: [t.workspaceId, t.intakeId], foreignColumns: [intake.workspaceId, intake.id] }),
  ],
);

/** Answers given to posts with an Idempotency-Key, for a day. */
export const idempotency = pgTable(
  'idempotency',
  {
    workspaceId: workspaceId(),
    intakeId: uuid('intake_id').notNull(),
    key: text('key').notNull(),
    bodyHash: text('body_hash').notNull(),
    submissionIds: uuid('submission_ids').array().notNull(),
    at: time('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.intakeId, t.key] }),
    foreignKey({ columns: [t.workspaceId, t.intakeId], foreignColumns: [intake.workspaceId, intake.id] }),
    index('idempotency_at').on(t.workspaceId, t.at),
  ],
);
