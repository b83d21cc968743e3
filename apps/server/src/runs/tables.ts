import type { AttemptReason, DifferenceGroup, PlannedOutcomes, RunOutcome, TableFigures } from '@haycart/api';
import type {
  JsonObject,
  KnownRecord,
  Link,
  Origin,
  Plan,
  RouteDefinition,
  UnmappedAnswer,
  Visit,
} from '@haycart/core';
import { sql } from 'drizzle-orm';
import {
  boolean,
  bigint,
  check,
  foreignKey,
  index,
  integer,
  json,
  jsonb,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';
import { recordEdit } from '../records/history/tables';
import { route, routeVersion } from '../routes/tables';
import { submission } from '../submissions/tables';

/** Runs that failed, that are held, and that wait for a paused route: by route and reason, under the id of their decision. */
const WAITS_FOR = `case when outcome = 'failed' or (outcome = 'held' and unmapped is null and coalesce(reason_code, '') not in ('which-record', 'approval', 'confirmation')) then
    case when outcome = 'failed' then 'failed' when reason_code = 'route-paused' then 'paused' else 'held' end
      || '.' || md5(route_id::text || E'\\n' || coalesce(reason_code, '') || E'\\n' || summary) end`;

/** One submission’s passage through one route, as it stands: what came of its latest attempt, unless that was taken back or given up since. */
export const run = pgTable(
  'run',
  {
    workspaceId: workspaceId(),
    /** That of its first attempt. */
    id: uuid('id').notNull(),
    submissionId: uuid('submission_id').notNull(),
    routeId: uuid('route_id').notNull(),
    /** The latest attempt. */
    attemptId: uuid('attempt_id').notNull(),
    version: integer('version').notNull(),
    outcome: text('outcome').$type<RunOutcome>().notNull(),
    reasonCode: text('reason_code'),
    /** The outcome in a few words, for a line in a list. */
    summary: text('summary').notNull(),
    /** Of the plan what is counted for many runs at once: the pipeline that it placed something in, */
    pipeline: text('pipeline'),
    /** and by which rule it recognised each record, as `contact email`; `contact none` where by none. */
    matches: text('matches')
      .array()
      .notNull()
      .default(sql`'{}'`),
    /** The values that no option stands for, until somebody says what they mean. */
    unmapped: jsonb('unmapped').$type<UnmappedAnswer[]>(),
    /** The decision that it waits for, one for all of a route with one reason; null where it waits for none of these. */
    waitsFor: text('waits_for').generatedAlwaysAs(sql.raw(WAITS_FOR)),
    startedAt: time('started_at').notNull(),
    finishedAt: time('finished_at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    unique('run_once').on(t.workspaceId, t.submissionId, t.routeId),
    foreignKey({ columns: [t.workspaceId, t.submissionId], foreignColumns: [submission.workspaceId, submission.id] }),
    foreignKey({
      columns: [t.workspaceId, t.routeId, t.version],
      foreignColumns: [routeVersion.workspaceId, routeVersion.routeId, routeVersion.version],
    }),
    check('run_outcome', sql`${t.outcome} in ('written', 'held', 'skipped', 'failed', 'taken-back')`),
    index('run_finished').on(t.workspaceId, t.finishedAt.desc().nullsFirst()),
    index('run_unmapped')
      .on(t.workspaceId, t.routeId)
      .where(sql`unmapped is not null`),
    index('run_unsettled')
      .on(t.workspaceId, t.routeId, t.outcome)
      .where(sql`outcome <> 'written'`),
    index('run_waits_for')
      .on(t.workspaceId, t.waitsFor, t.finishedAt)
      .where(sql`waits_for is not null`),
  ],
);

/**
 * Each try of a run, and each time that blanks were filled in after it, as it ended: none is overwritten by another. An
 * attempt that wrote is the cause of its changes. Its plan is kept without the diff, which stands in the record changes.
 */
export const attempt = pgTable(
  'attempt',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    runId: uuid('run_id').notNull(),
    why: text('why').$type<AttemptReason>().notNull(),
    version: integer('version').notNull(),
    outcome: text('outcome').$type<Exclude<RunOutcome, 'taken-back'>>().notNull(),
    reasonCode: text('reason_code'),
    summary: text('summary').notNull(),
    plan: json('plan').$type<Omit<Plan, 'diff'>>(),
    startedAt: time('started_at').notNull(),
    finishedAt: time('finished_at').notNull(),
    /** The act that filled in. */
    editId: uuid('edit_id'),
    /** The act that took it back, if it was. */
    takenBackBy: uuid('taken_back_by'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.runId], foreignColumns: [run.workspaceId, run.id] }),
    foreignKey({ columns: [t.workspaceId, t.editId], foreignColumns: [recordEdit.workspaceId, recordEdit.id] }),
    foreignKey({ columns: [t.workspaceId, t.takenBackBy], foreignColumns: [recordEdit.workspaceId, recordEdit.id] }),
    check('attempt_why', sql`${t.why} in ('arrival', 'again', 'fill-in')`),
    check('attempt_outcome', sql`${t.outcome} in ('written', 'held', 'skipped', 'failed')`),
    // The first has the id of its run, so that most need no entry here.
    index('attempt_further')
      .on(t.workspaceId, t.runId)
      .where(sql`id <> run_id`),
    index('attempt_taken_back')
      .on(t.workspaceId, t.takenBackBy)
      .where(sql`taken_back_by is not null`),
  ],
);

/** Two versions of a route, compared over past submissions by a job; what it found so far. */
export const routeComparison = pgTable(
  'route_comparison',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    routeId: uuid('route_id').notNull(),
    beforeName: text('before_name'),
    beforeDefinition: jsonb('before_definition').$type<RouteDefinition>(),
    afterName: text('after_name').notNull(),
    afterDefinition: jsonb('after_definition').$type<RouteDefinition>().notNull(),
    /** Which submissions: of this time, the latest of them at most so many. */
    since: time('since').notNull(),
    before: time('before').notNull(),
    most: integer('most').notNull(),
    state: text('state').$type<'working' | 'done' | 'cancelled' | 'failed'>().notNull().default('working'),
    total: integer('total').notNull(),
    looked: integer('looked').notNull().default(0),
    beforeOutcomes: jsonb('before_outcomes').$type<PlannedOutcomes>(),
    afterOutcomes: jsonb('after_outcomes').$type<PlannedOutcomes>().notNull(),
    differ: integer('differ').notNull().default(0),
    groups: jsonb('groups').$type<DifferenceGroup[]>().notNull().default([]),
    tables: jsonb('tables').$type<TableFigures[]>().notNull().default([]),
    startedAt: time('started_at').notNull().defaultNow(),
    finishedAt: time('finished_at'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.routeId], foreignColumns: [route.workspaceId, route.id] }),
    index('route_comparison_route').on(t.workspaceId, t.routeId),
    check('route_comparison_state', sql`${t.state} in ('working', 'done', 'cancelled', 'failed')`),
  ],
);

/**
 * A sample and what was agreed that a route does with it: with the records that were known then, so that it is the same
 * next year.
 */
export const routeCase = pgTable(
  'route_case',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    routeId: uuid('route_id').notNull(),
    name: text('name').notNull(),
    intake: text('intake').notNull(),
    payload: jsonb('payload').$type<JsonObject>().notNull(),
    visit: jsonb('visit').$type<Visit>().notNull(),
    origin: jsonb('origin').$type<Origin>().notNull().default({}),
    receivedAt: time('received_at').notNull(),
    records: jsonb('records').$type<KnownRecord[]>().notNull(),
    links: jsonb('links').$type<Link[]>().notNull(),
    expected: jsonb('expected').$type<Plan>().notNull(),
    savedBy: text('saved_by').notNull(),
    savedAt: time('saved_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.routeId], foreignColumns: [route.workspaceId, route.id] }),
    index('route_case_route').on(t.workspaceId, t.routeId, t.savedAt),
  ],
);

/** A number that plans read and advance beside records, such as whose turn it is in a team; see the core’s `Counters`. */
export const counter = pgTable(
  'counter',
  {
    workspaceId: workspaceId(),
    name: text('name').notNull(),
    value: bigint('value', { mode: 'number' }).notNull().default(0),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.name] })],
);

/** What those said who were asked before anything is written; kept, so that running again asks nobody twice. */
export const holdAnswer = pgTable(
  'hold_answer',
  {
    workspaceId: workspaceId(),
    submissionId: uuid('submission_id').notNull(),
    routeId: uuid('route_id').notNull(),
    /** The place of the hold in the route, from 0. */
    hold: integer('hold').notNull(),
    /** The kind of hold: a route whose holds changed since asks anew. */
    what: text('what').notNull(),
    approved: boolean('approved').notNull(),
    /** Why, in their words; blank where they gave no reason. */
    note: text('note').notNull(),
    /** Blank where nobody answered in time. */
    by: text('by').notNull(),
    at: time('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.submissionId, t.routeId, t.hold] }),
    foreignKey({ columns: [t.workspaceId, t.submissionId], foreignColumns: [submission.workspaceId, submission.id] }),
    foreignKey({ columns: [t.workspaceId, t.routeId], foreignColumns: [route.workspaceId, route.id] }),
  ],
);

/** Who was asked by mail before anything is written: a colleague, or the visitor. */
export const asked = pgTable(
  'asked',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    submissionId: uuid('submission_id').notNull(),
    routeId: uuid('route_id').notNull(),
    /** The place of the hold in the route, from 0. */
    hold: integer('hold').notNull(),
    what: text('what').$type<'approval' | 'confirmation'>().notNull(),
    address: text('address').notNull(),
    /** The colleague, by key. */
    personKey: text('person_key'),
    /** Of the secret in the link; null where the link of an earlier mail answers this as well. */
    hash: text('hash').unique(),
    /** Whether an answer is waited for. */
    open: boolean('open').notNull().default(true),
    askedAt: time('asked_at').notNull(),
    expiresAt: time('expires_at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    unique('asked_once').on(t.workspaceId, t.submissionId, t.routeId, t.hold, t.address),
    foreignKey({ columns: [t.workspaceId, t.submissionId], foreignColumns: [submission.workspaceId, submission.id] }),
    foreignKey({ columns: [t.workspaceId, t.routeId], foreignColumns: [route.workspaceId, route.id] }),
    check('asked_what', sql`${t.what} in ('approval', 'confirmation')`),
    index('asked_of_address')
      .on(t.workspaceId, t.address)
      .where(sql`open`),
    index('asked_expires')
      .on(t.workspaceId, t.expiresAt)
      .where(sql`open`),
  ],
);
