import type { RecordKind } from '@haycart/core';
import { sql } from 'drizzle-orm';
import { check, foreignKey, index, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../../platform/database/columns';
import { attempt } from '../../runs/tables';

/** Who was given what by a run, or by a promise that was missed: one for each person whom an enquiry went to. */
export const assignment = pgTable(
  'assignment',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    recordId: uuid('record_id').notNull(),
    /** The attempt of a run that gave it; null: a missed promise did. */
    attemptId: uuid('attempt_id'),
    /** The key of who got it; their name stays known when they are gone. */
    person: text('person').notNull(),
    /** The key of the team whose turn it was. */
    team: text('team'),
    /** Where turns were taken: the shares of those who could have got it. */
    shares: jsonb('shares').$type<Record<string, number>>(),
    /** The rest of a sentence about the person. */
    why: text('why').notNull(),
    at: time('at').notNull(),
    /** Until when it was to be answered. */
    dueAt: time('due_at'),
    /** When a person first did something about it, and who. */
    touchedAt: time('touched_at'),
    touchedBy: text('touched_by'),
    /** When the promise was found to be missed. */
    missedAt: time('missed_at'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.attemptId], foreignColumns: [attempt.workspaceId, attempt.id] }),
    check('assignment_touched', sql`(${t.touchedAt} is null) = (${t.touchedBy} is null)`),
    index('assignment_record').on(t.workspaceId, t.recordId, t.at),
    index('assignment_at').on(t.workspaceId, t.at, t.id),
    index('assignment_open')
      .on(t.workspaceId, t.dueAt)
      .where(sql`touched_at is null and due_at is not null`),
    index('assignment_due')
      .on(t.workspaceId, t.dueAt)
      .where(sql`touched_at is null and missed_at is null and due_at is not null`),
  ],
);
