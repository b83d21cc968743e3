import type { FieldValue, RecordKind } from '@haycart/core';
import { sql } from 'drizzle-orm';
import {
  type AnyPgColumn,
  bigint,
  check,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import { stage } from '../pipelines/tables';
import { time, workspaceId } from '../platform/database/columns';
import { person } from '../workspaces/tables';

/** What every record has besides its fields. */
const common = () => ({
  workspaceId: workspaceId(),
  id: uuid('id').notNull(),
  /** Counted up within the workspace; people say “C-1094”. */
  number: bigint('number', { mode: 'number' }).notNull(),
  /** The key of the person who looks after it. */
  owner: text('owner'),
  tags: text('tags')
    .array()
    .notNull()
    .default(sql`'{}'`),
  /** Values of the workspace's own fields, by key. */
  custom: jsonb('custom').$type<Record<string, FieldValue>>().notNull().default({}),
  /** For each field the time of the submission or change that its value came with. */
  writtenAt: jsonb('written_at').$type<Record<string, string>>().notNull().default({}),
  /** Its ids in other systems, as `system:id`. */
  externalIds: text('external_ids').array(),
  /** The fields whose value a person typed. */
  typed: text('typed')
    .array()
    .notNull()
    .default(sql`'{}'`),
  createdAt: time('created_at').notNull(),
  updatedAt: time('updated_at').notNull(),
});

/** Whoever owns a record is one of the workspace's people. */
export const ownedBy = (t: { workspaceId: AnyPgColumn; owner: AnyPgColumn }) =>
  foreignKey({ columns: [t.workspaceId, t.owner], foreignColumns: [person.workspaceId, person.key] });

export const contact = pgTable(
  'contact',
  {
    ...common(),
    firstName: text('first_name'),
    lastName: text('last_name'),
    fullName: text('full_name'),
    email: text('email'),
    emails: text('emails').array(),
    phone: text('phone'),
    phones: text('phones').array(),
    jobTitle: text('job_title'),
    country: text('country'),
    source: text('source'),
    /** Keys of the lists that the contact is on. */
    lists: text('lists')
      .array()
      .notNull()
      .default(sql`'{}'`),
  },
  (t) => [
    index('contact_created').on(t.workspaceId, t.createdAt),
    primaryKey({ columns: [t.workspaceId, t.id] }),
    unique('contact_number').on(t.workspaceId, t.number),
    ownedBy(t),
    index('contact_updated').on(t.workspaceId, t.updatedAt.desc().nullsFirst(), t.id.desc().nullsFirst()),
  ],
);

export const company = pgTable(
  'company',
  {
    ...common(),
    name: text('name').notNull(),
    domain: text('domain'),
    domains: text('domains').array(),
    website: text('website'),
    phone: text('phone'),
    country: text('country'),
    source: text('source'),
  },
  (t) => [
    index('company_created').on(t.workspaceId, t.createdAt),
    primaryKey({ columns: [t.workspaceId, t.id] }),
    unique('company_number').on(t.workspaceId, t.number),
    ownedBy(t),
    index('company_updated').on(t.workspaceId, t.updatedAt.desc().nullsFirst(), t.id.desc().nullsFirst()),
  ],
);

export const lead = pgTable(
  'lead',
  {
    ...common(),
    name: text('name').notNull(),
    email: text('email'),
    phone: text('phone'),
    companyName: text('company_name'),
    message: text('message'),
    source: text('source'),
    pipeline: text('pipeline'),
    stage: text('stage'),
    status: text('status'),
    stageSince: time('stage_since'),
    reason: text('reason'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    unique('lead_number').on(t.workspaceId, t.number),
    ownedBy(t),
    foreignKey({
      columns: [t.workspaceId, t.pipeline, t.stage],
      foreignColumns: [stage.workspaceId, stage.pipelineKey, stage.key],
    }),
    index('lead_updated').on(t.workspaceId, t.updatedAt.desc().nullsFirst(), t.id.desc().nullsFirst()),
  ],
);

export const deal = pgTable(
  'deal',
  {
    ...common(),
    name: text('name').notNull(),
    valueAmount: bigint('value_amount', { mode: 'number' }),
    valueCurrency: text('value_currency'),
    message: text('message'),
    source: text('source'),
    pipeline: text('pipeline').notNull(),
    stage: text('stage').notNull(),
    status: text('status').$type<'open' | 'won' | 'lost'>().notNull(),
    stageSince: time('stage_since').notNull(),
    closedAt: time('closed_at'),
    reason: text('reason'),
  },
  (t) => [
    index('deal_closed').on(t.workspaceId, t.pipeline, t.closedAt, t.stage, t.valueCurrency, t.valueAmount),
    index('deal_stage_since').on(t.workspaceId, t.stageSince),
    // How many open deals each looks after, to give the next to whoever has the fewest.
    index('deal_open_owner')
      .on(t.workspaceId, t.owner)
      .where(sql`${t.status} = 'open'`),
    index('deal_created').on(t.workspaceId, t.createdAt, t.valueCurrency, t.valueAmount),
    primaryKey({ columns: [t.workspaceId, t.id] }),
    unique('deal_number').on(t.workspaceId, t.number),
    ownedBy(t),
    index('deal_updated').on(t.workspaceId, t.updatedAt.desc().nullsFirst(), t.id.desc().nullsFirst()),
    check('deal_status', sql`${t.status} in ('open', 'won', 'lost')`),
    check('deal_value', sql`(${t.valueAmount} is null) = (${t.valueCurrency} is null)`),
    foreignKey({
      columns: [t.workspaceId, t.pipeline, t.stage],
      foreignColumns: [stage.workspaceId, stage.pipelineKey, stage.key],
    }),
    // With what a deal is worth, so that the sums of a grid read nothing else.
    index('deal_place').on(
      t.workspaceId,
      t.pipeline,
      t.status,
      t.stage,
      t.stageSince.desc().nullsFirst(),
      t.valueCurrency,
      t.valueAmount,
    ),
  ],
);

/** One record points to another: a deal to its contact, a contact to its company. */
export const recordLink = pgTable(
  'record_link',
  {
    workspaceId: workspaceId(),
    fromKind: text('from_kind').$type<RecordKind>().notNull(),
    fromId: uuid('from_id').notNull(),
    toKind: text('to_kind').$type<RecordKind>().notNull(),
    toId: uuid('to_id').notNull(),
    at: time('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.fromId, t.toId] }),
    index('record_link_to').on(t.workspaceId, t.toId),
  ],
);

/** The last number given to a record of a kind. */
export const recordCounter = pgTable(
  'record_counter',
  {
    workspaceId: workspaceId(),
    recordKind: text('record_kind').notNull(),
    last: bigint('last', { mode: 'number' }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.recordKind] })],
);

/** How full the fields of a kind of record are, counted by a job where there are too many to count for each that asks. */
export const recordFullness = pgTable(
  'record_fullness',
  {
    workspaceId: workspaceId(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    countedAt: time('counted_at').notNull().defaultNow(),
    total: integer('total').notNull(),
    /** By field: how many records hold it, and when it was last written. */
    byField: jsonb('by_field').$type<Record<string, { count: number; lastAt: string | null }>>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.recordKind] })],
);
