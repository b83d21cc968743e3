import type { FormDefinition, IntakeSource } from '@haycart/core';
import { boolean, foreignKey, integer, jsonb, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
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
    /** One of the core’s `INTAKE_KINDS`. */
    kind: text('kind').notNull(),
    /** What its kind asks when one is made. */
    settings: jsonb('settings').$type<Record<string, unknown>>().notNull().default({}),
    name: text('name').notNull(),
    /** A form is a draft until it is published for the first time. */
    state: text('state').$type<'draft' | 'live' | 'closed'>().notNull().default('live'),
    /** Out of the list, and closed for good unless it is brought back. */
    archived: boolean('archived').notNull().default(false),
    /** What its routes take answers for that tell who sent them, by key. */
    called: jsonb('called').$type<Record<string, string>>().notNull().default({}),
    /** Where its submissions come from, as far as it says itself. */
    source: jsonb('source').$type<IntakeSource>().notNull().default({}),
    /** When set, posts must be signed with it (Standard Webhooks). */
    secret: text('secret'),
    /** The secret before, which posts may still be signed with for a while. */
    oldSecret: text('old_secret'),
    oldSecretUntil: time('old_secret_until'),
    /** The most submissions a minute from one address; null is no limit. */
    perMinute: integer('per_minute').default(600),
    createdAt: time('created_at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), unique('intake_name').on(t.workspaceId, t.name)],
);

/** What an intake has when it is a form. */
export const hostedForm = pgTable(
  'form',
  {
    workspaceId: workspaceId(),
    intakeId: uuid('intake_id').notNull(),
    /** Its public name in `/f/{slug}`, unique over all workspaces. */
    slug: text('slug').notNull().unique(),
    /** The published form; null until there is one. */
    form: jsonb('form').$type<FormDefinition>(),
    /** The number of the published form; 0 until there is one. */
    version: integer('version').notNull().default(0),
    /** The other version that a share of the visitors sees; null while all see the same. */
    trial: jsonb('trial').$type<Trial>(),
    /** Filled in by colleagues alone, who sign in or have an entry link. */
    forColleagues: boolean('for_colleagues').notNull().default(false),
    /** What it says instead of its questions while it is closed. */
    closedMessage: text('closed_message'),
    /** The form as its editor has it. */
    draft: jsonb('draft').$type<FormDefinition>().notNull(),
    /** Counts the changes of the draft, so that two editors do not overwrite each other unseen. */
    draftRevision: integer('draft_revision').notNull().default(1),
    /** The form that it is a copy of. */
    copiedFrom: uuid('copied_from'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.intakeId] }),
    foreignKey({ columns: [t.workspaceId, t.intakeId], foreignColumns: [intake.workspaceId, intake.id] }),
    foreignKey({ columns: [t.workspaceId, t.copiedFrom], foreignColumns: [t.workspaceId, t.intakeId] }),
  ],
);
