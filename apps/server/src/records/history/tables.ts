import type { Channel, RecordKind, RecordsDiff, Way } from '@haycart/core';
import { sql } from 'drizzle-orm';
import {
  boolean,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { time, transactionNumber, workspaceId } from '../../platform/database/columns';
import { person } from '../../workspaces/tables';

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
    /** The transaction that wrote it: whoever follows changes goes by it, since ids do not tell what is committed. */
    transaction: transactionNumber('transaction')
      .notNull()
      .default(sql`pg_current_xact_id()`),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    index('record_change_record').on(t.workspaceId, t.recordId, t.at.desc().nullsFirst()),
    index('record_change_cause').on(t.workspaceId, t.causeId),
    index('record_change_followed').on(t.workspaceId, t.transaction, t.id),
  ],
);

/** One way to come by, which all visits share that came by it: so sums go by a short number. None is ever changed. */
export const touchSource = pgTable(
  'touch_source',
  {
    workspaceId: workspaceId(),
    id: integer('id').generatedAlwaysAsIdentity(),
    channel: text('channel').$type<Channel>().notNull(),
    source: text('source').notNull(),
    medium: text('medium'),
    campaign: text('campaign'),
    /** Without what stands after its path. */
    page: text('page'),
    /** Of all the others, which may be longer than an index takes. */
    digest: text('digest')
      .notNull()
      .generatedAlwaysAs(
        sql`md5(channel || chr(31) || source || chr(31) || coalesce(medium, chr(30)) || chr(31) || coalesce(campaign, chr(30)) || chr(31) || coalesce(page, chr(30)))`,
      ),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    uniqueIndex('touch_source_digest').on(t.workspaceId, t.digest),
  ],
);

/** How a visit came: its parameters, referring site, page and so on. Visits with the same facts share one row. */
export const touchWay = pgTable(
  'touch_way',
  {
    workspaceId: workspaceId(),
    id: integer('id').generatedAlwaysAsIdentity(),
    way: jsonb('way').$type<Way>().notNull(),
    /** An index entry for the whole way, which may be too long itself. */
    digest: text('digest')
      .notNull()
      .generatedAlwaysAs(sql`md5(way::text)`),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), uniqueIndex('touch_way_digest').on(t.workspaceId, t.digest)],
);

/**
 * Where a submission came from: one of each that touched a record, under the submission's id. Where a touch of old could not
 * be led back to its submission, the visit has an id of its own.
 */
export const visit = pgTable(
  'visit',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    at: time('at').notNull(),
    sourceId: integer('source_id').notNull(),
    /** Null for visits from before ways were stored. */
    wayId: integer('way_id'),
    /** Whether a person said where it came from: rules do not change it. */
    corrected: boolean('corrected').notNull().default(false),
    /** Whether it was before a submission, without one of its own: the site handed it over with a later one. */
    earlier: boolean('earlier').notNull().default(false),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.sourceId], foreignColumns: [touchSource.workspaceId, touchSource.id] }),
    foreignKey({ columns: [t.workspaceId, t.wayId], foreignColumns: [touchWay.workspaceId, touchWay.id] }),
    index('visit_at').on(t.workspaceId, t.at, t.sourceId, t.earlier),
    index('visit_way').on(t.workspaceId, t.wayId),
  ],
);

/** A record that a visit touched, by an attempt that still stands or was taken back since. */
export const touch = pgTable(
  'touch',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    recordKind: text('record_kind').$type<RecordKind>().notNull(),
    recordId: uuid('record_id').notNull(),
    attemptId: uuid('attempt_id').notNull(),
    visitId: uuid('visit_id').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.visitId], foreignColumns: [visit.workspaceId, visit.id] }),
    index('touch_record').on(t.workspaceId, t.recordId),
    index('touch_visit').on(t.workspaceId, t.visitId),
  ],
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
    index('stage_move_to').on(t.workspaceId, t.pipeline, t.toStage),
    index('stage_move_from')
      .on(t.workspaceId, t.pipeline, t.at)
      .where(sql`from_stage is not null`),
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
    /** The act by which a person deleted it; null where it became part of another, or a run was taken back. */
    editId: uuid('edit_id'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.editId], foreignColumns: [recordEdit.workspaceId, recordEdit.id] }),
    index('removed_record_bin')
      .on(t.workspaceId, t.kind, t.at.desc().nullsFirst(), t.id.desc().nullsFirst())
      .where(sql`edit_id is not null`),
  ],
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
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.personId], foreignColumns: [person.workspaceId, person.id] }),
    index('record_edit_at').on(t.workspaceId, t.at),
  ],
);
