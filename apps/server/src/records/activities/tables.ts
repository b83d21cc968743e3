import type { ConsentChannel, ConsentState, DocumentRow, TaskPriority } from '@haycart/core';
import { sql } from 'drizzle-orm';
import {
  check,
  date,
  foreignKey,
  index,
  integer,
  json,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
  type AnyPgColumn,
} from 'drizzle-orm/pg-core';
import { bytea, time, workspaceId } from '../../platform/database/columns';
import { attempt } from '../../runs/tables';
import { ownedBy } from '../tables';

/** The attempt of a run that made it, and which of its follow-ups; null for what a person wrote. */
const madeBy = () => ({ attemptId: uuid('attempt_id'), effect: integer('effect') });

/** One follow-up of an attempt makes one thing, however often that is asked for. */
const ofAttempt = (
  t: { workspaceId: AnyPgColumn; attemptId: AnyPgColumn; effect: AnyPgColumn },
  name: 'consent' | 'note' | 'record_file' | 'task',
) => [
  foreignKey({ columns: [t.workspaceId, t.attemptId], foreignColumns: [attempt.workspaceId, attempt.id] }),
  unique(`${name}_attempt`).on(t.workspaceId, t.attemptId, t.effect),
];

/** What people, and follow-ups, write on a record. */
export const note = pgTable(
  'note',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    recordId: uuid('record_id').notNull(),
    title: text('title').notNull().default(''),
    text: text('text').notNull(),
    by: text('by').notNull(),
    at: time('at').notNull(),
    changedAt: time('changed_at'),
    ...madeBy(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    ...ofAttempt(t, 'note'),
    index('note_record').on(t.workspaceId, t.recordId, t.at),
  ],
);

export const task = pgTable(
  'task',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    recordId: uuid('record_id').notNull(),
    text: text('text').notNull(),
    body: text('body'),
    priority: text('priority').$type<TaskPriority>().notNull().default('normal'),
    /** The key of the person who is to do it. */
    owner: text('owner'),
    /** The day, for what is due on a day. */
    due: date('due', { mode: 'string' }),
    /** The moment, for what is due at one. */
    dueAt: time('due_at'),
    /** When it becomes overdue: at that moment, or at the end of that day in UTC. */
    until: time('until').generatedAlwaysAs(sql`coalesce(due_at, (due + 1)::timestamp at time zone 'UTC')`),
    by: text('by').notNull(),
    at: time('at').notNull(),
    doneAt: time('done_at'),
    doneBy: text('done_by'),
    changedAt: time('changed_at'),
    ...madeBy(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    ownedBy(t),
    ...ofAttempt(t, 'task'),
    check('task_due', sql`${t.due} is null or ${t.dueAt} is null`),
    check('task_priority', sql`${t.priority} in ('low', 'normal', 'high')`),
    index('task_record').on(t.workspaceId, t.recordId, t.at),
    index('task_open')
      .on(t.workspaceId, t.owner, t.until, t.id)
      .where(sql`done_at is null`),
    index('task_done')
      .on(t.workspaceId, t.doneAt, t.id)
      .where(sql`done_at is not null`),
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
    /** 0 of a document, which is drawn when somebody wants it. */
    size: integer('size').notNull(),
    bytes: bytea('bytes'),
    /** What a document says that a follow-up made. */
    content: json('content').$type<{ title: string; rows: DocumentRow[] }>(),
    ...madeBy(),
    by: text('by').notNull(),
    at: time('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    ...ofAttempt(t, 'record_file'),
    check('record_file_holds', sql`num_nonnulls(${t.bytes}, ${t.content}) = 1`),
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
    state: text('state').$type<ConsentState>().notNull(),
    words: text('words').notNull(),
    /** Where it was said: a page, a form, a call. */
    place: text('place').notNull(),
    by: text('by').notNull(),
    at: time('at').notNull(),
    ...madeBy(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    index('consent_contact').on(t.workspaceId, t.contactId, t.at),
    ...ofAttempt(t, 'consent'),
  ],
);

/** The links in mails by which a contact confirms what is pending, or wants no more; made when the mail goes out. */
export const consentLink = pgTable(
  'consent_link',
  {
    workspaceId: workspaceId(),
    /** Of the secret in the link. */
    hash: text('hash').notNull().unique(),
    /** Of the mail in the outbox. */
    mailKey: text('mail_key').notNull(),
    contactId: uuid('contact_id').notNull(),
    /** To which the mail went. */
    address: text('address').notNull(),
    channel: text('channel').$type<ConsentChannel>().notNull(),
    /** What its reader says by it. */
    says: text('says').$type<'given' | 'withdrawn'>().notNull(),
    madeAt: time('made_at').notNull().defaultNow(),
    /** Null for one that always works. */
    expiresAt: time('expires_at'),
    /** When it was pressed first. */
    usedAt: time('used_at'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.hash] }),
    index('consent_link_contact').on(t.workspaceId, t.contactId, t.madeAt),
  ],
);
