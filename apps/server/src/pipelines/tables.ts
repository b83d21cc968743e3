import { sql } from 'drizzle-orm';
import { check, foreignKey, integer, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
import { workspaceId } from '../platform/database/columns';

export const pipeline = pgTable(
  'pipeline',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    key: text('key').notNull(),
    name: text('name').notNull(),
    record: text('record').$type<'deal' | 'lead'>().notNull(),
    position: integer('position').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    unique('pipeline_key').on(t.workspaceId, t.key),
    check('pipeline_record', sql`${t.record} in ('deal', 'lead')`),
  ],
);

export const stage = pgTable(
  'stage',
  {
    workspaceId: workspaceId(),
    pipelineKey: text('pipeline_key').notNull(),
    key: text('key').notNull(),
    name: text('name').notNull(),
    state: text('state').$type<'open' | 'won' | 'lost'>().notNull(),
    position: integer('position').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.pipelineKey, t.key] }),
    foreignKey({
      columns: [t.workspaceId, t.pipelineKey],
      foreignColumns: [pipeline.workspaceId, pipeline.key],
    }).onDelete('cascade'),
    check('stage_state', sql`${t.state} in ('open', 'won', 'lost')`),
  ],
);
