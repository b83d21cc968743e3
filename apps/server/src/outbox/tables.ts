import type { JsonValue, RecordKind } from '@haycart/core';
import type { OutboxState } from '@haycart/api';
import { sql } from 'drizzle-orm';
import {
  boolean,
  check,
  foreignKey,
  index,
  integer,
  json,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';
import { route } from '../routes/tables';
import { attempt, run } from '../runs/tables';
import { submission } from '../submissions/tables';

/** What was given up, under the id of its decision: one for all of a route to one address. */
const DECISION = `case when state = 'given-up' then 'undelivered.' || md5(route_id::text || E'\\n' || kind || E'\\n' || target) end`;

/** What runs send to the outside: written in the run’s transaction, sent after it, at least once, under a key. */
export const outbox = pgTable(
  'outbox',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    submissionId: uuid('submission_id').notNull(),
    runId: uuid('run_id').notNull(),
    /** The attempt that wrote, so that taking it back cancels what still waits. */
    attemptId: uuid('attempt_id').notNull(),
    routeId: uuid('route_id').notNull(),
    kind: text('kind').notNull(),
    target: text('target').notNull(),
    /** The record in whose history it stands. */
    recordKind: text('record_kind').$type<RecordKind>(),
    recordId: uuid('record_id'),
    key: text('key').notNull(),
    // As text, since an answer may hold what `jsonb` cannot.
    body: json('body').$type<JsonValue>().notNull(),
    state: text('state').$type<OutboxState>().notNull().default('waiting'),
    /** Whether it was cancelled since its run was taken back, so that giving that back sends it after all. */
    takenBack: boolean('taken_back').notNull().default(false),
    /** Whether it goes out as one with others of its kind to the same receiver; and the one under whose key it went. */
    together: boolean('together').notNull().default(false),
    sentWith: uuid('sent_with'),
    /** How often it was tried at all, and since somebody last asked for it. */
    attempts: integer('attempts').notNull().default(0),
    tries: integer('tries').notNull().default(0),
    createdAt: time('created_at').notNull().defaultNow(),
    /** When it is tried next; while it is being sent, when it is taken for lost. */
    dueAt: time('due_at').notNull().defaultNow(),
    /** When it was sent, given up or cancelled. */
    endedAt: time('ended_at'),
    lastError: text('last_error'),
    decisionId: text('decision_id').generatedAlwaysAs(sql.raw(DECISION)),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    unique('outbox_key').on(t.workspaceId, t.key),
    foreignKey({ columns: [t.workspaceId, t.submissionId], foreignColumns: [submission.workspaceId, submission.id] }),
    foreignKey({ columns: [t.workspaceId, t.runId], foreignColumns: [run.workspaceId, run.id] }),
    foreignKey({ columns: [t.workspaceId, t.attemptId], foreignColumns: [attempt.workspaceId, attempt.id] }),
    foreignKey({ columns: [t.workspaceId, t.routeId], foreignColumns: [route.workspaceId, route.id] }),
    foreignKey({ columns: [t.workspaceId, t.sentWith], foreignColumns: [t.workspaceId, t.id] }),
    check('outbox_state', sql`${t.state} in ('waiting', 'done', 'given-up', 'cancelled', 'returned')`),
    index('outbox_due')
      .on(t.workspaceId, t.dueAt)
      .where(sql`state = 'waiting'`),
    index('outbox_latest').on(t.workspaceId, t.createdAt.desc().nullsFirst(), t.id.desc().nullsFirst()),
    index('outbox_state_latest').on(t.workspaceId, t.state, t.createdAt.desc().nullsFirst(), t.id.desc().nullsFirst()),
    index('outbox_target').on(
      t.workspaceId,
      sql`lower(target)`,
      t.createdAt.desc().nullsFirst(),
      t.id.desc().nullsFirst(),
    ),
    index('outbox_run').on(t.workspaceId, t.runId),
    index('outbox_record')
      .on(t.workspaceId, t.recordId, t.createdAt)
      .where(sql`record_id is not null`),
    index('outbox_together')
      .on(t.workspaceId, t.kind, t.target, t.dueAt, t.id)
      .where(sql`together and state = 'waiting' and sent_with is null`),
    index('outbox_sent_with')
      .on(t.workspaceId, t.sentWith)
      .where(sql`sent_with is not null`),
    index('outbox_attempt').on(t.workspaceId, t.attemptId),
    index('outbox_given_up')
      .on(t.workspaceId, t.decisionId, t.endedAt)
      .where(sql`decision_id is not null`),
  ],
);

/** When the next may go to a receiver that takes only so many a minute, by its lane. */
export const outboxPace = pgTable(
  'outbox_pace',
  {
    workspaceId: workspaceId(),
    lane: text('lane').notNull(),
    nextAt: time('next_at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.lane] })],
);

/** With what a workspace signs what it posts: made when it is first needed, sealed. */
export const outboxSecret = pgTable(
  'outbox_secret',
  {
    workspaceId: workspaceId(),
    secret: text('secret').notNull(),
    madeAt: time('made_at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId] })],
);
