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
  /** Rows that became submissions, and rows that could not be read. */
  kept: number;
  refused: number;
  problem: string | null;
  by: string;
  at: string;
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
  refused: number;
}
