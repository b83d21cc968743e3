import { sql } from 'drizzle-orm';
import { foreignKey, index, integer, jsonb, pgTable, primaryKey, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core';
import { intake } from '../intakes/tables';
import { bytea, time, workspaceId } from '../platform/database/columns';

/** A file that somebody brought in, kept as it came. Its rows become submissions of its intake. */
export const sheetFile = pgTable(
  'sheet_file',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    intakeId: uuid('intake_id').notNull(),
    name: text('name').notNull(),
    bytes: bytea('bytes').notNull(),
    state: text('state').$type<'reading' | 'read' | 'cancelled' | 'unreadable'>().notNull(),
    /** How it was read: encoding, delimiter, columns. */
    columns: jsonb('columns').$type<string[]>(),
    encoding: text('encoding'),
    delimiter: text('delimiter'),
    /** How many rows were looked at; reading goes on after them. */
    looked: integer('looked').notNull().default(0),
    kept: integer('kept').notNull().default(0),
    refused: integer('refused').notNull().default(0),
    /** Why it cannot be read. */
    problem: text('problem'),
    by: text('by').notNull(),
    at: time('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.intakeId], foreignColumns: [intake.workspaceId, intake.id] }),
    index('sheet_file_intake').on(t.workspaceId, t.intakeId, t.at),
    uniqueIndex('sheet_file_reading')
      .on(t.workspaceId, t.id)
      .where(sql`state = 'reading'`),
  ],
);

/** A row of a file that could not be read, with what stands there and why. */
export const sheetRefusal = pgTable(
  'sheet_refusal',
  {
    workspaceId: workspaceId(),
    fileId: uuid('file_id').notNull(),
    row: integer('row').notNull(),
    text: text('text').notNull(),
    reason: text('reason').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.fileId, t.row] }),
    foreignKey({ columns: [t.workspaceId, t.fileId], foreignColumns: [sheetFile.workspaceId, sheetFile.id] }),
  ],
);
