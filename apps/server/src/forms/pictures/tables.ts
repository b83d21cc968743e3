import { pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
import { bytea, time, workspaceId } from '../../platform/database/columns';

/** Pictures that stand in forms. A published version may name one for ever, so none is taken away. */
export const formPicture = pgTable(
  'form_picture',
  {
    workspaceId: workspaceId(),
    /** Part of its public address, so unique over all workspaces. */
    id: uuid('id').notNull().unique(),
    type: text('type').notNull(),
    /** SHA-256 of the bytes: the same picture is kept once. */
    hash: bytea('hash').notNull(),
    bytes: bytea('bytes').notNull(),
    by: text('by').notNull(),
    at: time('at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] }), unique('form_picture_once').on(t.workspaceId, t.hash)],
);
