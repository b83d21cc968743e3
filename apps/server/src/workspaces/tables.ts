import type { AnswerPromise, AwayDates, WorkingHours } from '@haycart/core';
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
    /** Null: invited, and has chosen none yet. */
    passwordHash: text('password_hash'),
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
    /** What they know besides languages. */
    skills: text('skills')
      .array()
      .notNull()
      .default(sql`'{}'`),
    /** Of the IANA time zone database. */
    timeZone: text('time_zone'),
    hours: jsonb('hours').$type<WorkingHours>().notNull().default({}),
    /** Where text messages reach them (E.164). */
    phone: text('phone'),
    /** How many open leads and deals are enough. */
    capacity: integer('capacity'),
    /** How much of what comes on one day is enough. */
    perDay: integer('per_day'),
    away: jsonb('away').$type<AwayDates[]>().notNull().default([]),
    createdAt: time('created_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    unique('person_key').on(t.workspaceId, t.key),
    check('person_capacity', sql`${t.capacity} >= 0`),
    check('person_per_day', sql`${t.perDay} >= 0`),
    uniqueIndex('person_email').on(t.workspaceId, sql`lower(${t.email})`),
  ],
);

export const team = pgTable(
  'team',
  {
    workspaceId: workspaceId().references(() => workspace.id),
    key: text('key').notNull(),
    name: text('name').notNull(),
    /** How soon its people answer. */
    promise: jsonb('promise').$type<AnswerPromise>(),
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
    /** Names it in lists. */
    id: uuid('id').notNull().defaultRandom(),
    personId: uuid('person_id').notNull(),
    expiresAt: time('expires_at').notNull(),
    createdAt: time('created_at').notNull().defaultNow(),
    /** When it was used last, to a minute. */
    seenAt: time('seen_at').notNull().defaultNow(),
    /** The browser, as it called itself. */
    browser: text('browser').notNull().default(''),
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
    /** What it may do: read, bring submissions and files in, or all but what needs a person. */
    scope: text('scope').$type<'read' | 'send' | 'all'>().notNull().default('all'),
    /** Whose it is; null: made on the command line. */
    personId: uuid('person_id'),
    expiresAt: time('expires_at'),
    /** To a minute. */
    usedAt: time('used_at'),
    createdAt: time('created_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.personId], foreignColumns: [person.workspaceId, person.id] }).onDelete(
      'cascade',
    ),
    check('api_token_scope', sql`${t.scope} in ('read', 'send', 'all')`),
  ],
);

/** A link by which somebody sets their password, once. */
export const personLink = pgTable(
  'person_link',
  {
    workspaceId: workspaceId(),
    /** SHA-256 of the link's secret. */
    hash: text('hash').notNull().unique(),
    personId: uuid('person_id').notNull(),
    expiresAt: time('expires_at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.personId] }),
    foreignKey({ columns: [t.workspaceId, t.personId], foreignColumns: [person.workspaceId, person.id] }).onDelete(
      'cascade',
    ),
  ],
);

/** A browser in which somebody signed in before: wrong tries from elsewhere do not keep it out. */
export const knownDevice = pgTable(
  'known_device',
  {
    workspaceId: workspaceId(),
    personId: uuid('person_id').notNull(),
    hash: text('hash').notNull(),
    seenAt: time('seen_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.personId, t.hash] }),
    foreignKey({ columns: [t.workspaceId, t.personId], foreignColumns: [person.workspaceId, person.id] }).onDelete(
      'cascade',
    ),
  ],
);

/** Wrong tries in a row, by what is made to wait. Belongs to no workspace: only the gate functions reach it. */
export const wrongTry = pgTable('wrong_try', {
  subject: text('subject').primaryKey(),
  tries: integer('tries').notNull(),
  lastAt: time('last_at').notNull(),
});

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
