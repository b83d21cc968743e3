import type { RecordKind } from '@haycart/core';
import { bigint, index, integer, pgTable, primaryKey, smallint, text, uuid } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';

/**
 * One touch of those that led to a record, counted back from the last. A deal has up to three journeys: its own, with the
 * touches of its contacts, and with those of all people of its company; those that are the same stand once. Made anew
 * whenever something of it changes.
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
    /** Bits: nothing later came by the same channel (1), source (2), campaign (4), page (8); so each counts a record once. */
    lastOf: smallint('last_of').notNull(),
    sourceId: integer('source_id').notNull(),
    visitId: uuid('visit_id').notNull(),
    at: time('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.recordId, t.basis, t.back] }),
    index('journey_step_source').on(t.workspaceId, t.sourceId, t.recordKind, t.basis),
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
