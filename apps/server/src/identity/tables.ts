import type { LikenessModel, MailboxReading, MatchAnswer, MergeRules, RecordKind, Thresholds } from '@haycart/core';
import { sql } from 'drizzle-orm';
import {
  bigint,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { time, transactionNumber, workspaceId } from '../platform/database/columns';

/** Counted up, with a migration, whenever the core finds records by other keys or blocks than before; see `RecordIndexing`. */
export const INDEX_VERSION = 1;

/** How a workspace recognises and merges, where that differs from what is usual. */
export const recognition = pgTable(
  'recognition',
  {
    workspaceId: workspaceId(),
    mailboxes: jsonb('mailboxes').$type<MailboxReading>(),
    merging: jsonb('merging').$type<MergeRules>(),
    /** The version of keys and blocks that the records have; a workspace that begins now has the current one. */
    indexed: integer('indexed').notNull().default(INDEX_VERSION),
    /** For the scan of all records. */
    thresholds: jsonb('thresholds').$type<Thresholds>(),
    /** The last change of a record that was looked at for look-alikes. */
    lookedUntil: uuid('looked_until'),
    /** Its transaction's number; those of smaller ones are settled. */
    lookedTransaction: transactionNumber('looked_transaction'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId] })],
);

/** What likeness is worked out from, learned from the workspace’s own records. */
export const likenessModel = pgTable(
  'likeness_model',
  {
    workspaceId: workspaceId(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    model: jsonb('model').$type<LikenessModel>().notNull(),
    learnedAt: time('learned_at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.recordKind] })],
);

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
  (t) => [primaryKey({ columns: [t.workspaceId, t.submissionId, t.routeId, t.write] })],
);
