import type { FieldValue, RecordKind, RecordsDiff } from '@haycart/core';
import { sql } from 'drizzle-orm';
import {
  type AnyPgColumn,
  bigint,
  check,
  doublePrecision,
  foreignKey,
  index,
  jsonb,
  pgTable,
  primaryKey,
  text,
  unique,
  uniqueIndex,
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
    index('deal_place').on(t.workspaceId, t.pipeline, t.status, t.stage, t.stageSince.desc().nullsFirst()),
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

/** By what a record can be recognised. E-mail, domain and external id belong to one record of a kind at a time. */
export const identityKey = pgTable(
  'identity_key',
  {
    workspaceId: workspaceId(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    keyKind: text('key_kind').notNull(),
    value: text('value').notNull(),
    recordId: uuid('record_id').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.recordKind, t.keyKind, t.value, t.recordId] }),
    uniqueIndex('identity_key_unique')
      .on(t.workspaceId, t.recordKind, t.keyKind, t.value)
      .where(
        sql`(key_kind in ('email', 'domain', 'external-id') and record_kind <> 'lead') or key_kind like 'field:%'`,
      ),
  ],
);

/** Under what a record is found by those that may be like it; see the core’s `blocksOf`. */
export const recordBlock = pgTable(
  'record_block',
  {
    workspaceId: workspaceId(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    block: text('block').notNull(),
    recordId: uuid('record_id').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.recordKind, t.block, t.recordId] }),
    index('record_block_record').on(t.workspaceId, t.recordId),
  ],
);

/** One record that became part of another. While it is not undone, its id and number lead to the survivor. */
export const recordMerge = pgTable(
  'record_merge',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    survivorId: uuid('survivor_id').notNull(),
    absorbedId: uuid('absorbed_id').notNull(),
    absorbedNumber: bigint('absorbed_number', { mode: 'number' }).notNull(),
    absorbedName: text('absorbed_name').notNull(),
    /** The run, or the act of a person, that did it. */
    causeKind: text('cause_kind').$type<'run' | 'merge'>().notNull(),
    causeId: uuid('cause_id').notNull(),
    by: text('by').notNull(),
    at: time('at').notNull(),
    /** How like both were, where that was worked out. */
    probability: doublePrecision('probability'),
    /** What it did to the records and their links. */
    diff: jsonb('diff').$type<RecordsDiff>().notNull(),
    /** The rows that were moved to the survivor, by table. */
    moved: jsonb('moved').$type<Record<string, string[]>>().notNull(),
    undoneAt: time('undone_at'),
    undoneBy: text('undone_by'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    uniqueIndex('record_merge_absorbed')
      .on(t.workspaceId, t.absorbedId)
      .where(sql`undone_at is null`),
    index('record_merge_survivor').on(t.workspaceId, t.survivorId),
    index('record_merge_at').on(t.workspaceId, t.at),
    index('record_merge_cause').on(t.workspaceId, t.causeId),
  ],
);

/** What one cause (a run, a person) did to one record. Traces, history and taking back read it. */
export const recordChange = pgTable(
  'record_change',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    recordId: uuid('record_id').notNull(),
    at: time('at').notNull(),
    causeKind: text('cause_kind').$type<'run' | 'person' | 'import' | 'merge' | 'take-back'>().notNull(),
    causeId: uuid('cause_id').notNull(),
    diff: jsonb('diff').$type<RecordsDiff>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    index('record_change_record').on(t.workspaceId, t.recordId, t.at.desc().nullsFirst()),
    index('record_change_cause').on(t.workspaceId, t.causeId),
  ],
);

/** One contact with marketing. The first of a record is its first source; later ones are added. */
export const touch = pgTable(
  'touch',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    recordId: uuid('record_id').notNull(),
    runId: uuid('run_id').notNull(),
    at: time('at').notNull(),
    channel: text('channel').notNull(),
    source: text('source').notNull(),
    medium: text('medium'),
    campaign: text('campaign'),
    page: text('page'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), index('touch_record').on(t.workspaceId, t.recordId, t.at)],
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

/** Each step of a deal or lead through its pipeline, the placing at the beginning too. */
export const stageMove = pgTable(
  'stage_move',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    recordId: uuid('record_id').notNull(),
    pipeline: text('pipeline').notNull(),
    /** Null: it was placed here. */
    fromStage: text('from_stage'),
    toStage: text('to_stage').notNull(),
    at: time('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    index('stage_move_pipeline').on(t.workspaceId, t.pipeline, t.at),
    index('stage_move_record').on(t.workspaceId, t.recordId, t.at),
  ],
);

/** When a contact came on a list and left it. */
export const listMembership = pgTable(
  'list_membership',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    listKey: text('list_key').notNull(),
    contactId: uuid('contact_id').notNull(),
    joinedAt: time('joined_at').notNull(),
    leftAt: time('left_at'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    uniqueIndex('list_membership_now')
      .on(t.workspaceId, t.contactId, t.listKey)
      .where(sql`left_at is null`),
    index('list_membership_list').on(t.workspaceId, t.listKey, t.joinedAt),
  ],
);

/** A record that was deleted, whole, so that it can come back as it was. */
export const removedRecord = pgTable(
  'removed_record',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    kind: text('kind').$type<RecordKind>().notNull(),
    row: jsonb('row').notNull(),
    at: time('at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);

/** One act of a person on records: an edit, a bulk change, a deletion. It can be taken back. */
export const recordEdit = pgTable(
  'record_edit',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    /** Null: a script did it. */
    personId: uuid('person_id'),
    by: text('by').notNull(),
    /** What was done, in a sentence. */
    text: text('text').notNull(),
    at: time('at').notNull(),
    takenBackBy: text('taken_back_by'),
    takenBackAt: time('taken_back_at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), index('record_edit_at').on(t.workspaceId, t.at)],
);
