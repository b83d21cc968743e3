import { readTextFile, sameJson } from '@haycart/core';
import { FILES, type PeopleFile } from './files';

/** How one file was read. */
export interface FileRead {
  file: PeopleFile;
  right: boolean;
  /** What was read, where that is something else. */
  got: string;
}

/** Reads each file, and compares its rows with those that were meant. */
export function readFiles(): FileRead[] {
  return FILES.map((file) => {
    const read = readTextFile(file.bytes);
    const rows = read.ok ? [...read.rows()].flatMap((row) => ('values' in row ? [row.values] : [])) : [];
    const right = rows.length === file.rows.length && rows.every((row, index) => sameJson(row, file.rows[index]));
    return { file, right, got: read.ok ? JSON.stringify(rows) : read.problem };
  });
}
