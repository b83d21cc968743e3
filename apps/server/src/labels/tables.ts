import type { ColourMark } from '@haycart/core';
import { boolean, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';

const label = () => ({
  workspaceId: workspaceId(),
  key: text('key').notNull(),
  name: text('name').notNull(),
  colour: text('colour').$type<ColourMark>(),
  /** Out of use: its key is not given again. */
  retired: boolean('retired').notNull().default(false),
  /** The act that took it out of use, which may be taken back. */
  retiredIn: uuid('retired_in'),
  createdAt: time('created_at').notNull().defaultNow(),
});

/** A word that any record can carry. */
export const tag = pgTable('tag', label(), (t) => [primaryKey({ columns: [t.workspaceId, t.key] })]);

/** A list that contacts can be on. */
export const contactList = pgTable('contact_list', label(), (t) => [primaryKey({ columns: [t.workspaceId, t.key] })]);
