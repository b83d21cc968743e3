import type { MatchAnswer, RecordKind } from '@haycart/core';
import { sql } from 'drizzle-orm';
import {
  bigint,
  doublePrecision,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';
import { route } from '../routes/tables';
import { submission } from '../submissions/tables';

/** Two records that may be the same: the one with the smaller id stands first. */
export const lookAlike = pgTable(
  'look_alike',
  {
    workspaceId: workspaceId(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    oneId: uuid('one_id').notNull(),
    otherId: uuid('other_id').notNull(),
    probability: doublePrecision('probability').notNull(),
    /** How they agree; see the core’s `Pattern`. */
    pattern: text('pattern').notNull(),
    state: text('state').$type<'open' | 'later' | 'same' | 'different'>().notNull().default('open'),
    foundAt: time('found_at').notNull(),
    checkedAt: time('checked_at').notNull(),
    /** The key of the intake that brought the later of the two; null: none did. */
    intake: text('intake'),
    decidedBy: text('decided_by'),
    decidedAt: time('decided_at'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.oneId, t.otherId] }),
    index('look_alike_other').on(t.workspaceId, t.otherId),
    index('look_alike_open')
      .on(t.workspaceId, t.state, t.recordKind, t.probability.desc().nullsFirst(), t.oneId, t.otherId)
      .where(sql`state in ('open', 'later')`),
    index('look_alike_found').on(t.workspaceId, t.foundAt),
  ],
);

/** One look through all records of a kind. It goes on where it stopped. */
export const lookAlikeScan = pgTable(
  'look_alike_scan',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    state: text('state').$type<'running' | 'done' | 'cancelled' | 'failed'>().notNull(),
    records: integer('records').notNull(),
    /** How many of the parts that the records are looked through in are done. */
    partsDone: integer('parts_done').notNull(),
    parts: integer('parts').notNull(),
    pairs: bigint('pairs', { mode: 'number' }).notNull(),
    found: integer('found').notNull(),
    /** From what probability on its pairs are kept; of those below only the number is. */
    ask: doublePrecision('ask').notNull(),
    /** How many pairs have which probability, in hundredths. */
    scores: jsonb('scores').$type<number[]>().notNull(),
    by: text('by').notNull(),
    startedAt: time('started_at').notNull(),
    finishedAt: time('finished_at'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    uniqueIndex('look_alike_scan_running')
      .on(t.workspaceId, t.recordKind)
      .where(sql`state = 'running'`),
    index('look_alike_scan_started').on(t.workspaceId, t.startedAt),
  ],
);

/** What a person answered who was asked which record a submission means. */
export const matchAnswer = pgTable(
  'match_answer',
  {
    workspaceId: workspaceId(),
    submissionId: uuid('submission_id').notNull(),
    routeId: uuid('route_id').notNull(),
    /** The name of the write inside the route. */
    write: text('write').notNull(),
    answer: jsonb('answer').$type<MatchAnswer>().notNull(),
    /** How likely the record that was chosen, or the likeliest one, was the same; null: a key was compared. */
    probability: doublePrecision('probability'),
    by: text('by').notNull(),
    at: time('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.submissionId, t.routeId, t.write] }),
    foreignKey({ columns: [t.workspaceId, t.submissionId], foreignColumns: [submission.workspaceId, submission.id] }),
    foreignKey({ columns: [t.workspaceId, t.routeId], foreignColumns: [route.workspaceId, route.id] }),
  ],
);
