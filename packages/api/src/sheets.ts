import type { JsonObject, RecordKind } from '@haycart/core';
import type { TakeBackRehearsal } from './submissions';

/** A file that was brought in, and how far it is read. */
export interface SheetFileShape {
  id: string;
  name: string;
  /** In bytes. */
  size: number;
  state: 'reading' | 'read' | 'cancelled' | 'unreadable';
  columns: string[] | null;
  encoding: string | null;
  delimiter: string | null;
  /** Of a workbook: the worksheet that is read, and the others that have something in them. */
  worksheet: string | null;
  left: string[];
  /** Rows that became submissions, and rows that could not be read. */
  kept: number;
  refused: number;
  problem: string | null;
  by: string;
  at: string;
  /** How far taking back what its rows wrote is; null when nobody did. */
  takenBack: SheetTakenBack | null;
}

/** How a file would be read, by its beginning. */
export interface SheetLook {
  columns: string[];
  encoding: string | null;
  /** Whether its text is likely in no other encoding. */
  sure: boolean;
  delimiter: string | null;
  /** The first rows that can be read. */
  rows: JsonObject[];
}

/** What taking a file back has done so far. */
export interface SheetTakenBack {
  done: boolean;
  /** Whether it failed half-way, and rests until a person has it go on. */
  stopped: boolean;
  /** Runs taken back, of how many. */
  runs: number;
  of: number;
  /** Records that went, by kind, and records that stayed with some of their values gone back. */
  removed: Partial<Record<RecordKind, number>>;
  changed: number;
  /** How much stays as it is, since somebody or something else touched it. */
  left: number;
}

/** An intake that takes files: the files, and what became of all their rows. */
export interface SheetShape {
  files: SheetFileShape[];
  rows: number;
  waiting: number;
  written: number;
  held: number;
  skipped: number;
  failed: number;
  takenBack: number;
  refused: number;
}

/** What taking a file back would do. */
export interface SheetTakeBackRehearsal extends TakeBackRehearsal {
  /** How many runs there are in all; the rehearsal is of the latest `runs` of them. */
  of: number;
}
