import type { ChannelRule, JoinedNames } from '@haycart/core';
import { jsonb, pgTable, primaryKey } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';

/** How a workspace tells channels apart, where that differs from what is usual. */
export const channelRules = pgTable(
  'channel_rules',
  {
    workspaceId: workspaceId(),
    rules: jsonb('rules').$type<ChannelRule[]>().notNull(),
    names: jsonb('names').$type<JoinedNames[]>().notNull(),
    /** Spellings that look like a name and are another source. */
    apart: jsonb('apart').$type<JoinedNames[]>().notNull().default([]),
    changedAt: time('changed_at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId] })],
);
