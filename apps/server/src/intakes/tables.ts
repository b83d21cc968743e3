import type { FormDefinition } from '@haycart/core';
import { sql } from 'drizzle-orm';
import {
  boolean,
  check,
  foreignKey,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';

/** Two versions of a form that share its visitors: the published one, and this earlier one. */
export interface Trial {
  version: number;
  form: FormDefinition;
  /** How many of the visitors see the published one, 0 to 1. */
  share: number;
  /** ISO 8601 */
  since: string;
  /** What was counted of the earlier one on that day before. */
  before: { views: number; starts: number; sends: number; seconds: number };
}

export const intake = pgTable(
  'intake',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    /** Part of a public address, so unique over all workspaces and hard to guess. */
    key: text('key').notNull().unique(),
    kind: text('kind').$type<'form' | 'endpoint' | 'sheet'>().notNull(),
    name: text('name').notNull(),
    /** A form is a draft until it is published for the first time. */
    state: text('state').$type<'draft' | 'live' | 'closed'>().notNull().default('live'),
    /** Out of the list, and closed for good unless it is brought back. */
    archived: boolean('archived').notNull().default(false),
    /** What a closed form says instead of its questions. */
    closedMessage: text('closed_message'),
    /** The form's public name in `/f/{slug}`. */
    slug: text('slug').unique(),
    /** The published form; null until there is one. */
    form: jsonb('form').$type<FormDefinition>(),
    /** The number of the published form; 0 until there is one. */
    version: integer('version').notNull().default(0),
    /** The other version that a share of the visitors sees; null while all see the same. */
    trial: jsonb('trial').$type<Trial>(),
    /** Filled in by colleagues alone, who sign in or have an entry link. */
    forColleagues: boolean('for_colleagues').notNull().default(false),
    /** The form as its editor has it. */
    draft: jsonb('draft').$type<FormDefinition>(),
    /** Counts the changes of the draft, so that two editors do not overwrite each other unseen. */
    draftRevision: integer('draft_revision').notNull().default(0),
    /** What its routes take answers for that tell who sent them, by key. */
    called: jsonb('called').$type<Record<string, string>>().notNull().default({}),
    /** The form that it is a copy of. */
    copiedFrom: uuid('copied_from'),
    /** When set, posts must be signed with it (Standard Webhooks). */
    secret: text('secret'),
    /** The secret before, which posts may still be signed with for a while. */
    oldSecret: text('old_secret'),
    oldSecretUntil: time('old_secret_until'),
    /** The most submissions a minute from one address; null is no limit. */
    perMinute: integer('per_minute').default(600),
    createdAt: time('created_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.copiedFrom], foreignColumns: [t.workspaceId, t.id] }),
    unique('intake_name').on(t.workspaceId, t.name),
    check('intake_form', sql`(${t.kind} = 'form') = (${t.draft} is not null and ${t.slug} is not null)`),
  ],
);
