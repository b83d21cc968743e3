import type { ListView, Pipeline, RecordsDiff, RouteDefinition } from '@haycart/core';
import { index, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';

/** A route that named what was removed: as it was, and as it is since. */
export interface ChangedRoute {
  id: string;
  draft: { before: RouteDefinition; after: RouteDefinition } | null;
  /** The version that ran before, and the number of the one published in its stead. */
  published: { before: RouteDefinition; version: number } | null;
}

/** A kept view that tested for what was removed: as it was, and as it is since. */
export interface ChangedView {
  id: string;
  before: ListView;
  after: ListView;
}

/** What a removal did, so that it can be taken back. */
export interface Removal {
  /** The pipeline as it was, and its place among the others. */
  pipeline: Pipeline & { id: string };
  position: number;
  records: RecordsDiff;
  routes: ChangedRoute[];
  /** Absent from removals of before views were kept. */
  views?: ChangedView[];
}

/** Removals in the set-up, each with all that followed from it. */
export const setUpChange = pgTable(
  'set_up_change',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    at: time('at').notNull(),
    by: text('by').notNull(),
    /** What was done, in a sentence. */
    text: text('text').notNull(),
    removal: jsonb('removal').$type<Removal>().notNull(),
    takenBackAt: time('taken_back_at'),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), index('set_up_change_at').on(t.workspaceId, t.at)],
);
