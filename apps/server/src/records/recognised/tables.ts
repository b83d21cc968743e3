import type { RecordKind, RecordsDiff } from '@haycart/core';
import { sql } from 'drizzle-orm';
import {
  bigint,
  doublePrecision,
  index,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../../platform/database/columns';

/** By what a record can be recognised. E-mail, domain and external id belong to one record of a kind at a time. */
export const identityKey = pgTable(
  'identity_key',
  {
    workspaceId: workspaceId(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    keyKind: text('key_kind').notNull(),
    value: text('value').notNull(),
    recordId: uuid('record_id').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.recordKind, t.keyKind, t.value, t.recordId] }),
    uniqueIndex('identity_key_unique')
      .on(t.workspaceId, t.recordKind, t.keyKind, t.value)
      .where(
        sql`(key_kind in ('email', 'domain', 'external-id') and record_kind <> 'lead') or key_kind like 'field:%'`,
      ),
  ],
);

/** Under what a record is found by those that may be like it; see the core’s `blocksOf`. */
export const recordBlock = pgTable(
  'record_block',
  {
    workspaceId: workspaceId(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    block: text('block').notNull(),
    recordId: uuid('record_id').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.recordKind, t.block, t.recordId] }),
    index('record_block_record').on(t.workspaceId, t.recordId),
  ],
);

/** One record that became part of another. While it is not undone, its id and number lead to the survivor. */
export const recordMerge = pgTable(
  'record_merge',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    survivorId: uuid('survivor_id').notNull(),
    absorbedId: uuid('absorbed_id').notNull(),
    absorbedNumber: bigint('absorbed_number', { mode: 'number' }).notNull(),
    absorbedName: text('absorbed_name').notNull(),
    /** The run, or the act of a person, that did it. */
    causeKind: text('cause_kind').$type<'run' | 'merge'>().notNull(),
    causeId: uuid('cause_id').notNull(),
    by: text('by').notNull(),
    at: time('at').notNull(),
    /** How like both were, where that was worked out. */
    probability: doublePrecision('probability'),
    /** What it did to the records and their links. */
    diff: jsonb('diff').$type<RecordsDiff>().notNull(),
    /** The rows that were moved to the survivor, by table. */
    moved: jsonb('moved').$type<Record<string, string[]>>().notNull(),
    undoneAt: time('undone_at'),
    undoneBy: text('undone_by'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    uniqueIndex('record_merge_absorbed')
      .on(t.workspaceId, t.absorbedId)
      .where(sql`undone_at is null`),
    index('record_merge_survivor').on(t.workspaceId, t.survivorId),
    index('record_merge_at').on(t.workspaceId, t.at),
    index('record_merge_cause').on(t.workspaceId, t.causeId),
  ],
);
