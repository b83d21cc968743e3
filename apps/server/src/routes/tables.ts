import type { RouteDefinition } from '@haycart/core';
import { sql } from 'drizzle-orm';
import { check, foreignKey, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';
import { person } from '../workspaces/tables';

export const route = pgTable(
  'route',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    state: text('state').$type<'live' | 'paused'>().notNull().default('paused'),
    draft: jsonb('draft').$type<RouteDefinition>().notNull(),
    draftSavedAt: time('draft_saved_at').notNull().defaultNow(),
    /** Who saved it last, in words. */
    draftSavedBy: text('draft_saved_by'),
    /** Counts the changes of the draft, so that two editors do not overwrite each other unseen. */
    draftRevision: integer('draft_revision').notNull().default(0),
    /** The published version that runs; null until the first one. */
    version: integer('version'),
    createdAt: time('created_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    check('route_live_is_published', sql`${t.state} <> 'live' or ${t.version} is not null`),
  ],
);

export const routeVersion = pgTable(
  'route_version',
  {
    workspaceId: workspaceId(),
    routeId: uuid('route_id').notNull(),
    version: integer('version').notNull(),
    definition: jsonb('definition').$type<RouteDefinition>().notNull(),
    note: text('note'),
    publishedBy: text('published_by').notNull(),
    publishedAt: time('published_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.routeId, t.version] }),
    foreignKey({ columns: [t.workspaceId, t.routeId], foreignColumns: [route.workspaceId, route.id] }),
  ],
);

/** Who has which route’s sheet open; a row counts for some seconds. */
export const routePresence = pgTable(
  'route_presence',
  {
    workspaceId: workspaceId(),
    routeId: uuid('route_id').notNull(),
    personId: uuid('person_id').notNull(),
    at: time('at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.routeId, t.personId] }),
    foreignKey({ columns: [t.workspaceId, t.routeId], foreignColumns: [route.workspaceId, route.id] }),
    foreignKey({ columns: [t.workspaceId, t.personId], foreignColumns: [person.workspaceId, person.id] }),
  ],
);
