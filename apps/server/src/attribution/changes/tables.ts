import { sql } from 'drizzle-orm';
import { foreignKey, index, integer, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../../platform/database/columns';
import { person } from '../../workspaces/tables';

/** One change of the sources of past visits, by the channel rules or by a person. It can be taken back. */
export const sourceChange = pgTable(
  'source_change',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    at: time('at')
      .notNull()
      .default(sql`now()`),
    /** Null: a script did it. */
    personId: uuid('person_id'),
    by: text('by').notNull(),
    kind: text('kind').$type<'rules' | 'correction'>().notNull(),
    /** What it did, in a sentence. */
    text: text('text').notNull(),
    takenBackBy: text('taken_back_by'),
    takenBackAt: time('taken_back_at'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.personId], foreignColumns: [person.workspaceId, person.id] }),
    index('source_change_at').on(t.workspaceId, t.at),
  ],
);

/** The visits that a change moved from one source to another, so that they can be moved back. */
export const sourceChangePart = pgTable(
  'source_change_part',
  {
    workspaceId: workspaceId(),
    changeId: uuid('change_id').notNull(),
    fromSourceId: integer('from_source_id').notNull(),
    toSourceId: integer('to_source_id').notNull(),
    visits: uuid('visits').array().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.changeId, t.fromSourceId, t.toSourceId] }),
    foreignKey({ columns: [t.workspaceId, t.changeId], foreignColumns: [sourceChange.workspaceId, sourceChange.id] }),
  ],
);
