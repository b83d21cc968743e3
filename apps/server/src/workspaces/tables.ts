import type { AwayDates, WorkingHours } from '@haycart/core';
import { sql } from 'drizzle-orm';
import {
  boolean,
  check,
  foreignKey,
  integer,
  jsonb,
  numeric,
  date,
  pgTable,
  primaryKey,
  text,
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';

export const workspace = pgTable('workspace', {
  id: uuid('id').primaryKey(),
  key: text('key').notNull().unique(),
  name: text('name').notNull(),
  defaultCountry: text('default_country').notNull(),
  defaultCurrency: text('default_currency').notNull(),
  /** Whether enquiries become deals at once, or leads that somebody qualifies first. */
  leadHandling: text('lead_handling').$type<'deals' | 'leads'>().notNull().default('deals'),
  /** What sets a submission aside that holds it. */
  blockedWords: text('blocked_words')
    .array()
    .notNull()
    .default(sql`'{}'::text[]`),
  blockedDomains: text('blocked_domains')
    .array()
    .notNull()
    .default(sql`'{}'::text[]`),
  /** What a deal is called. */
  dealWord: text('deal_word').$type<'deal' | 'opportunity'>().notNull().default('deal'),
  /** Counts changes to what routing depends on (routes, pipelines, fields, intakes), so that workers know when to read anew. */
  revision: integer('revision').notNull().default(0),
  createdAt: time('created_at').notNull().defaultNow(),
});

export const person = pgTable(
  'person',
  {
    workspaceId: workspaceId().references(() => workspace.id),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    email: text('email').notNull(),
    passwordHash: text('password_hash').notNull(),
    /** How records, routes and conditions name the person; never changes. */
    key: text('key').notNull(),
    /** Whoever is not active gets nothing new and cannot sign in. */
    active: boolean('active').notNull().default(true),
    /** ISO 3166-1 alpha-2. */
    regions: text('regions')
      .array()
      .notNull()
      .default(sql`'{}'`),
    /** BCP 47. */
    languages: text('languages')
      .array()
      .notNull()
      .default(sql`'{}'`),
    /** Of the IANA time zone database. */
    timeZone: text('time_zone'),
    hours: jsonb('hours').$type<WorkingHours>().notNull().default({}),
    /** How many open leads and deals are enough. */
    capacity: integer('capacity'),
    away: jsonb('away').$type<AwayDates[]>().notNull().default([]),
    createdAt: time('created_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    unique('person_key').on(t.workspaceId, t.key),
    check('person_capacity', sql`${t.capacity} >= 0`),
    uniqueIndex('person_email').on(t.workspaceId, sql`lower(${t.email})`),
  ],
);

export const team = pgTable(
  'team',
  {
    workspaceId: workspaceId().references(() => workspace.id),
    key: text('key').notNull(),
    name: text('name').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.key] })],
);

export const teamMember = pgTable(
  'team_member',
  { workspaceId: workspaceId(), teamKey: text('team_key').notNull(), personId: uuid('person_id').notNull() },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.teamKey, t.personId] }),
    foreignKey({ columns: [t.workspaceId, t.teamKey], foreignColumns: [team.workspaceId, team.key] }).onDelete(
      'cascade',
    ),
    foreignKey({ columns: [t.workspaceId, t.personId], foreignColumns: [person.workspaceId, person.id] }).onDelete(
      'cascade',
    ),
  ],
);

export const session = pgTable(
  'session',
  {
    workspaceId: workspaceId(),
    /** SHA-256 of the cookie's value, so that the table gives nobody a session. */
    hash: text('hash').notNull(),
    personId: uuid('person_id').notNull(),
    expiresAt: time('expires_at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.hash] }),
    unique('session_hash').on(t.hash),
    foreignKey({ columns: [t.workspaceId, t.personId], foreignColumns: [person.workspaceId, person.id] }).onDelete(
      'cascade',
    ),
  ],
);

export const apiToken = pgTable(
  'api_token',
  {
    workspaceId: workspaceId().references(() => workspace.id),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    hash: text('hash').notNull().unique(),
    createdAt: time('created_at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);

/** Tries to sign in, by what is limited (an address or a client). Belongs to no workspace: only the gate function reaches it. */
export const signInTry = pgTable(
  'sign_in_try',
  {
    subject: text('subject').notNull(),
    windowStart: time('window_start').notNull(),
    tries: integer('tries').notNull(),
  },
  (t) => [primaryKey({ columns: [t.subject, t.windowStart] })],
);

/** What one unit of a currency is worth in the workspace's own, from a day on until a later rate. */
export const exchangeRate = pgTable(
  'exchange_rate',
  {
    workspaceId: workspaceId().references(() => workspace.id),
    currency: text('currency').notNull(),
    from: date('from_day', { mode: 'string' }).notNull(),
    rate: numeric('rate').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.currency, t.from] }),
    check('exchange_rate_positive', sql`${t.rate} > 0`),
  ],
);
