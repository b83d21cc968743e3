import { check, index, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import { time, workspaceId } from '../platform/database/columns';

/** Who did what on purpose, and when: one line for each command. The server's role may add lines and read them. */
export const audit = pgTable(
  'audit',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    at: time('at').notNull().defaultNow(),
    actorKind: text('actor_kind').$type<'person' | 'token'>().notNull(),
    actorId: uuid('actor_id').notNull(),
    /** Their name then. */
    actor: text('actor').notNull(),
    command: text('command').notNull(),
    /** The id or key of what it was done to. */
    subject: text('subject'),
    text: text('text').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    check('audit_actor_kind', sql`${t.actorKind} in ('person', 'token')`),
    index('audit_latest').on(t.workspaceId, t.at.desc().nullsFirst(), t.id.desc().nullsFirst()),
    index('audit_of_actor').on(t.workspaceId, t.actorId, t.at.desc().nullsFirst()),
    index('audit_of_subject').on(t.workspaceId, t.subject, t.at.desc().nullsFirst()),
  ],
);
