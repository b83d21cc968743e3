import { parse } from 'csv-parse/browser/esm/sync';
import type { Cells } from './table-rows';

/** A quote that is not closed after so many lines was none. */
const LONGEST_RECORD = 60;

/**
 * The records of lines of delimited values (RFC 4180): a quoted cell may go over several lines. A quote counts at the
 * beginning of a cell, spaces before it left out; elsewhere it is what it is, such as an inch mark.
 */
export function* records(lines: readonly string[], delimiter: string): Generator<Cells> {
  for (let at = 0; at < lines.length; at++) {
    const line = lines[at]!;
    if (line.trim() === '') continue;
    if (!line.includes('"')) {
      yield { row: at + 1, cells: line.split(delimiter) };
      continue;
    }
    let end = at;
    let record = line;
    while (isOpen(record, delimiter) && end + 1 < lines.length && end - at < LONGEST_RECORD)
      record += `\n${lines[(end += 1)]!}`;
    if (isOpen(record, delimiter)) {
      yield { row: at + 1, text: line.slice(0, 1_000), refused: 'A quote begins in this row and is never closed.' };
      continue;
    }
    const cells = cellsOf(record, delimiter);
    yield cells
      ? { row: at + 1, cells }
      : { row: at + 1, text: record.slice(0, 1_000), refused: 'Its quotes stand where none may stand.' };
    at = end;
  }
}

/** Whether a cell that began with a quote goes on beyond the end. */
function isOpen(record: string, delimiter: string): boolean {
  let at = 0;
  for (;;) {
    while (record[at] === ' ' && delimiter !== ' ') at += 1;
    if (record[at] === '"') {
      at = closingQuote(record, at + 1);
      if (at === -1) return true;
    }
    const next = record.indexOf(delimiter, at);
    if (next === -1) return false;
    at = next + 1;
  }
}

/** The place of the quote that closes a cell: one that no other follows; -1 where there is none. */
function closingQuote(record: string, from: number): number {
  let at = record.indexOf('"', from);
  while (at !== -1 && record[at + 1] === '"') at = record.indexOf('"', at + 2);
  return at;
}

function cellsOf(record: string, delimiter: string): string[] | null {
  try {
    const [cells] = parse(record, {
      delimiter,
      ltrim: true,
      rtrim: true,
      relax_quotes: true,
      relax_column_count: true,
      record_delimiter: '\u0000',
    });
    return (cells as string[] | undefined) ?? [];
  } catch {
    return null;
  }
}
