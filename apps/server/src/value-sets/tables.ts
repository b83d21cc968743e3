import { sql } from 'drizzle-orm';
import { jsonb, pgTable, primaryKey, text, uniqueIndex } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';

/** Values that belong together under one name, for the cells of decision tables. */
export const valueSet = pgTable(
  'value_set',
  {
    workspaceId: workspaceId(),
    /** How cells name it; never changes. */
    key: text('key').notNull(),
    name: text('name').notNull(),
    values: jsonb('values').$type<string[]>().notNull(),
    changedAt: time('changed_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.key] }),
    uniqueIndex('value_set_name').on(t.workspaceId, sql`lower(${t.name})`),
  ],
);
