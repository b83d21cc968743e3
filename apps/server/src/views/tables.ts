import type { ListView, RecordKind } from '@haycart/core';
import { foreignKey, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';
import { person } from '../workspaces/tables';

/** A way to look at a list of records that somebody kept: for themselves, or for everybody. */
export const savedView = pgTable(
  'saved_view',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    record: text('record').$type<RecordKind>().notNull(),
    name: text('name').notNull(),
    view: jsonb('view').$type<ListView>().notNull(),
    /** Whose it is; null: everybody's. */
    personId: uuid('person_id'),
    createdAt: time('created_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.personId], foreignColumns: [person.workspaceId, person.id] }),
  ],
);
