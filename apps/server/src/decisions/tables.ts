import { pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';

/** What somebody decided about something that waited; what comes of the same kind later waits anew. */
export const decision = pgTable(
  'decision',
  {
    workspaceId: workspaceId(),
    /** See the sources of decisions: made of what it is about. */
    id: text('id').notNull(),
    action: text('action').notNull(),
    by: text('by').notNull(),
    at: time('at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);
