import type { RecordKind } from '@haycart/core';
import { sql } from 'drizzle-orm';
import { bigint, index, integer, pgTable, primaryKey, smallint, text, uuid } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';

/**
 * One touch of those that led to a record, counted back from the last, with what the record counts for: sums are made of these
 * rows alone. A deal has up to three journeys: its own, with the touches of its contacts, and with those of all people of its
 * company; those that are the same stand once. What nothing led to has one row without a touch. Made anew whenever something
 * of it changes.
 */
export const journeyStep = pgTable(
  'journey_step',
  {
    workspaceId: workspaceId(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    recordId: uuid('record_id').notNull(),
    /** Whose touches count: 0 those of the record, 1 of its contacts too, 2 of its companies and all their people too; from this on. */
    basis: smallint('basis').notNull(),
    /** Until this. */
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

/** A record of which something changed that its journey, or that of another, may go by. Triggers write it. */
export const journeyDue = pgTable(
  'journey_due',
  {
    workspaceId: workspaceId(),
    id: bigint('id', { mode: 'number' }).generatedAlwaysAsIdentity(),
    recordId: uuid('record_id').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);
