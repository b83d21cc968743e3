import type { ConsentChannel } from '@haycart/core';
import { sql } from 'drizzle-orm';
import { date, index, integer, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { bytea, time, workspaceId } from '../../platform/database/columns';
import { ownedBy } from '../tables';

/** What people write on a record. */
export const note = pgTable(
  'note',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    recordId: uuid('record_id').notNull(),
    text: text('text').notNull(),
    by: text('by').notNull(),
    at: time('at').notNull(),
    changedAt: time('changed_at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), index('note_record').on(t.workspaceId, t.recordId, t.at)],
);

export const task = pgTable(
  'task',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    recordId: uuid('record_id').notNull(),
    text: text('text').notNull(),
    /** The key of the person who is to do it. */
    owner: text('owner'),
    due: date('due', { mode: 'string' }),
    by: text('by').notNull(),
    at: time('at').notNull(),
    doneAt: time('done_at'),
    doneBy: text('done_by'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    ownedBy(t),
    index('task_record').on(t.workspaceId, t.recordId, t.at),
    index('task_open')
      .on(t.workspaceId, t.owner, t.due)
      .where(sql`done_at is null`),
  ],
);

export const recordFile = pgTable(
  'record_file',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    recordId: uuid('record_id').notNull(),
    name: text('name').notNull(),
    type: text('type').notNull(),
    size: integer('size').notNull(),
    bytes: bytea('bytes').notNull(),
    by: text('by').notNull(),
    at: time('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    index('record_file_record').on(t.workspaceId, t.recordId, t.at),
  ],
);

/** What a contact agreed to or withdrew, with the exact words; the latest of a channel holds. */
export const consent = pgTable(
  'consent',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    contactId: uuid('contact_id').notNull(),
    channel: text('channel').$type<ConsentChannel>().notNull(),
    state: text('state').$type<'given' | 'withdrawn'>().notNull(),
    words: text('words').notNull(),
    /** Where it was said: a page, a form, a call. */
    place: text('place').notNull(),
    by: text('by').notNull(),
    at: time('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    index('consent_contact').on(t.workspaceId, t.contactId, t.at),
  ],
);
