import { foreignKey, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../../platform/database/columns';
import { person } from '../../workspaces/tables';

/** A view of where business came from that somebody is mailed each Monday. */
export const reportMail = pgTable(
  'report_mail',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    /** Whom it is mailed to. */
    personId: uuid('person_id').notNull(),
    name: text('name').notNull(),
    /** What the report is asked for, as the address of the page says it. */
    query: jsonb('query').$type<Record<string, string | number>>().notNull(),
    createdAt: time('created_at').notNull().defaultNow(),
    sentAt: time('sent_at'),
    /** Why the last one was not sent; null when it was. */
    error: text('error'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.personId], foreignColumns: [person.workspaceId, person.id] }),
  ],
);
