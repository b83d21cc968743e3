import type { RecordKind } from '@haycart/core';
import { sql } from 'drizzle-orm';
import { bigint, index, integer, pgTable, primaryKey, smallint, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core';
import { bytea, time, workspaceId } from '../platform/database/columns';

/**
 * One touch before a deal was closed, or before a lead or contact was made what it is. Steps are numbered back from the last.
 * Dates and amount of the record are copied here, so that reports read this table alone. A deal has up to three journeys: its
 * own touches, those and its contacts', and those and its whole company's. Journeys with the same touches are stored once. A
 * record without any touch has one row without a visit. The rows of a record are replaced when the record, its links or its
 * touches change.
 */
export const journeyStep = pgTable(
  'journey_step',
  {
    workspaceId: workspaceId(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    recordId: uuid('record_id').notNull(),
    /** Whose touches count: 0 the record's own, 1 its contacts' too, 2 its companies' and all their people's too. The first for which this row holds. */
    basis: smallint('basis').notNull(),
    /** The last for which this row holds. */
    toBasis: smallint('to_basis').notNull(),
    /** 1 for the last touch before the deal was closed, 2 for the one before. */
    back: integer('back').notNull(),
    /** How many there are in all. */
    of: integer('of').notNull(),
    /**
     * At how many depths of the tree the record counts here, from the deepest: 5 for the last touch of all, 4 where nothing
     * later came by the same channel, 3 by the same source of it, 2 by the same campaign, 1 by the same page, else 0.
     */
    level: smallint('level').notNull(),
    /** Seconds before the last. */
    ago: integer('ago').notNull(),
    sourceId: integer('source_id'),
    visitId: uuid('visit_id'),
    at: time('at'),
    /** When the record was made; and when the deal was won, or the lead qualified. */
    madeAt: time('made_at').notNull(),
    wonAt: time('won_at'),
    amount: bigint('amount', { mode: 'number' }),
    currency: text('currency'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.recordId, t.basis, t.back] }),
    index('journey_step_made').on(t.workspaceId, t.recordKind, t.madeAt),
    index('journey_step_won')
      .on(t.workspaceId, t.recordKind, t.wonAt)
      .where(sql`won_at is not null`),
  ],
);

/**
 * A record with its journeys as one value: servers that hold journeys in memory read by it what changed. Of a record that is
 * gone nothing but its number is left.
 */
export const journey = pgTable(
  'journey',
  {
    workspaceId: workspaceId(),
    recordId: uuid('record_id').notNull(),
    /** From 1, in the order in which records came. */
    nr: integer('nr').notNull(),
    /** Counts up with each portion of journeys made, one portion after the other. */
    generation: bigint('generation', { mode: 'number' }).notNull(),
    recordKind: text('record_kind').$type<RecordKind>(),
    madeAt: time('made_at'),
    wonAt: time('won_at'),
    amount: bigint('amount', { mode: 'number' }),
    currency: text('currency'),
    /** The steps with a touch, packed: `PACKED_STEP` of the making, by basis and from the last touch back. */
    steps: bytea('steps').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.recordId] }),
    uniqueIndex('journey_nr').on(t.workspaceId, t.nr),
    index('journey_generation').on(t.workspaceId, t.generation),
  ],
);

/** A record that changed, so that its journey and those of its deals are to be made again. Written by triggers. */
export const journeyDue = pgTable(
  'journey_due',
  {
    workspaceId: workspaceId(),
    id: bigint('id', { mode: 'number' }).generatedAlwaysAsIdentity(),
    recordId: uuid('record_id').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);
