import type { Caller } from '../platform/auth/caller';
import type { Encoding, RecordKind } from '@haycart/core';
import { sql } from 'drizzle-orm';
import { foreignKey, integer, jsonb, pgTable, primaryKey, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core';
import { intake } from '../intakes/tables';
import { bytea, time, workspaceId } from '../platform/database/columns';

/** How far taking a file back is, and what it did. */
export interface SheetTakeBack {
  by: Caller['by'];
  done: boolean;
  /** Its job was given up; it rests until a person asks. */
  stopped?: boolean;
  /** The oldest run that was looked at; taking back goes on before it. */
  oldest: string | null;
  /** Runs taken back, of how many. */
  runs: number;
  of: number;
  removed: Partial<Record<RecordKind, number>>;
  changed: number;
  left: number;
}

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
    /** The encoding that whoever brought it chose; null where it is to be guessed. */
    readAs: text('read_as').$type<Encoding>(),
    /** Of a workbook: the worksheet that is read, and the others that have something in them and were not brought in. */
    worksheet: text('worksheet'),
    left: jsonb('left_out').$type<string[]>(),
    /** How many rows were looked at; reading goes on after them. */
    looked: integer('looked').notNull().default(0),
    kept: integer('kept').notNull().default(0),
    refused: integer('refused').notNull().default(0),
    /** Why it cannot be read. */
    problem: text('problem'),
    by: text('by').notNull(),
    /** The arrival of all its rows, and of no other of the intake: by it they are known. */
    at: time('at').notNull(),
    /** Names the sending, so that one sent twice is one file. */
    sentAs: text('sent_as'),
    takenBack: jsonb('taken_back').$type<SheetTakeBack>(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.intakeId], foreignColumns: [intake.workspaceId, intake.id] }),
    uniqueIndex('sheet_file_arrival').on(t.workspaceId, t.intakeId, t.at),
    uniqueIndex('sheet_file_sent_as')
      .on(t.workspaceId, t.sentAs)
      .where(sql`sent_as is not null`),
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
