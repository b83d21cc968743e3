import type { LikenessModel, MailboxReading, MergeRules, RecordKind, Thresholds } from '@haycart/core';
import { integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { time, transactionNumber, workspaceId } from '../platform/database/columns';
import { INDEX_VERSION } from './index-version';

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
