import type { AnswerPromise } from '@haycart/core';
import { sql } from 'drizzle-orm';
import { check, foreignKey, integer, jsonb, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
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
    /** Where a deal begins when nothing says in which stage. */
    defaultStage: text('default_stage'),
    /** How soon what comes into it is answered. */
    promise: jsonb('promise').$type<AnswerPromise>(),
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
    /** Percent of its deals that are expected to be won. */
    probability: integer('probability'),
    /** Days in it after which a deal counts as stuck. */
    stuckAfter: integer('stuck_after'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.pipelineKey, t.key] }),
    foreignKey({
      columns: [t.workspaceId, t.pipelineKey],
      foreignColumns: [pipeline.workspaceId, pipeline.key],
    }).onDelete('cascade'),
    check('stage_state', sql`${t.state} in ('open', 'won', 'lost')`),
    check('stage_probability', sql`${t.probability} between 0 and 100`),
    check('stage_stuck_after', sql`${t.stuckAfter} > 0`),
  ],
);

/** Keys of pipelines and stages that are gone: never given again, since routes and records of the past still name them. */
export const retiredPlace = pgTable(
  'retired_place',
  {
    workspaceId: workspaceId(),
    pipelineKey: text('pipeline_key').notNull(),
    /** Empty: the pipeline itself. */
    stageKey: text('stage_key').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.pipelineKey, t.stageKey] })],
);
