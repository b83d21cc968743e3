import type { JsonObject } from '../json';

/** One row of a file, by the number that it has there. */
export type SheetRow = { row: number } & (
  | { values: JsonObject }
  /** It cannot be read: what stands there, and why. */
  | { text: string; refused: string }
);

/** How a file was read. */
export interface SheetReading {
  /** The names of its columns, in their order. */
  columns: string[];
  /** Such as `utf-8`, or `utf-8, some lines windows-1252`. */
  encoding: string;
  delimiter: string | null;
  /** Whether its first row names the columns. */
  header: boolean;
}

/** The most columns of a file; more are no table of people. */
export const MOST_COLUMNS = 5_000;
