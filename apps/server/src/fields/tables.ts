import type { FieldOption, FieldType, RecordKind } from '@haycart/core';
import { boolean, integer, jsonb, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';

/** Fields that a workspace made, and what it changed about the built-in ones (whether they are required). */
export const field = pgTable(
  'field',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    record: text('record').$type<RecordKind>().notNull(),
    key: text('key').notNull(),
    builtIn: boolean('built_in').notNull().default(false),
    label: text('label').notNull(),
    type: text('type').$type<FieldType>().notNull(),
    required: boolean('required').notNull().default(false),
    options: jsonb('options').$type<FieldOption[]>(),
    help: text('help'),
    isUnique: boolean('is_unique').notNull().default(false),
    /** The heading under which it stands on a record's page. */
    groupName: text('group_name'),
    position: integer('position').notNull().default(0),
    /** Since when it is out of use. Its values stay, and its key is not given again. */
    retiredAt: time('retired_at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), unique('field_key').on(t.workspaceId, t.record, t.key)],
);
