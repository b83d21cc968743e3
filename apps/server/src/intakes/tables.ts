import type { FormDefinition } from '@haycart/core';
import { sql } from 'drizzle-orm';
import { check, integer, jsonb, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';

export const intake = pgTable(
  'intake',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    /** Part of a public address, so unique over all workspaces and hard to guess. */
    key: text('key').notNull().unique(),
    kind: text('kind').$type<'form' | 'endpoint'>().notNull(),
    name: text('name').notNull(),
    state: text('state').$type<'live' | 'closed'>().notNull().default('live'),
    /** The form's public name in `/f/{slug}`. */
    slug: text('slug').unique(),
    form: jsonb('form').$type<FormDefinition>(),
    /** When set, posts must be signed with it (Standard Webhooks). */
    secret: text('secret'),
    /** The most submissions a minute from one address; null is no limit. */
    perMinute: integer('per_minute').default(600),
    createdAt: time('created_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    unique('intake_name').on(t.workspaceId, t.name),
    check('intake_form', sql`(${t.kind} = 'form') = (${t.form} is not null and ${t.slug} is not null)`),
  ],
);
