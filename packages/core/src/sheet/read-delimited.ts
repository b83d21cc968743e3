import { parse } from 'csv-parse/browser/esm/sync';
import type { SheetReading, SheetRow } from './sheet';
import { columnNames, looksLikeHeader, rowsByColumn, tableProblem, type Cells } from './table-rows';

const DELIMITERS = [',', ';', '\t', '|'] as const;
/** Rows by which the delimiter is found. */
const LOOKED_AT = 30;
/** A quote that is not closed after so many lines was none. */
const LONGEST_RECORD = 60;

/** A text of delimited values, read: its columns at once, its rows one by one. */
export type ReadDelimited =
  | { ok: true; reading: Omit<SheetReading, 'encoding'>; rows: () => Generator<SheetRow> }
  | { ok: false; problem: string };

/**
 * Reads delimited values (RFC 4180), whatever their delimiter and line ends. A row that cannot be read is refused by
 * itself, with its number and the reason: a quote that is never closed costs its own line, not the rest of the file.
 */
export function readDelimited(text: string): ReadDelimited {
  const lines = text.replace(/\r\n?/g, '\n').split('\n');
  const delimiter = delimiterOf(lines);
  const [first] = records(lines, delimiter);
  if (!first || !('cells' in first)) return { ok: false, problem: first?.refused ?? 'There is nothing in the file.' };
  const header = looksLikeHeader(first.cells);
  const columns = columnNames(first.cells, header);
  const problem = tableProblem(columns);
  if (problem) return { ok: false, problem };
  function* rows(): Generator<SheetRow> {
    const all = records(lines, delimiter);
    if (header) all.next();
    yield* rowsByColumn(columns, all);
  }
  return { ok: true, reading: { columns, delimiter, header }, rows };
}

/** The delimiter by which most rows can be read and have the same number of cells; of several such the one with most cells. */
function delimiterOf(lines: readonly string[]): string {
  const scored = DELIMITERS.map((delimiter) => {
    const counts: number[] = [];
    for (const record of records(lines, delimiter)) {
      counts.push('cells' in record ? record.cells.length : 0);
      if (counts.length >= LOOKED_AT) break;
    }
    const usual = counts.toSorted((a, b) => a - b)[Math.floor(counts.length / 2)] ?? 0;
    const agreeing = counts.filter((count) => count === usual).length;
    return { delimiter, score: usual < 2 ? 0 : agreeing * 1_000 + usual };
  });
  return scored.reduce((best, one) => (one.score > best.score ? one : best)).delimiter;
}

/** The records of the lines: a quoted cell may go over several. */
function* records(lines: readonly string[], delimiter: string): Generator<Cells> {
  for (let at = 0; at < lines.length; at++) {
    const line = lines[at]!;
    if (line.trim() === '') continue;
    if (!line.includes('"')) {
      yield { row: at + 1, cells: line.split(delimiter) };
      continue;
    }
    let end = at;
    let record = line;
    while (isOpen(record) && end + 1 < lines.length && end - at < LONGEST_RECORD) record += `\n${lines[(end += 1)]!}`;
    if (isOpen(record)) {
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

function isOpen(record: string): boolean {
  let quotes = 0;
  for (let at = record.indexOf('"'); at >= 0; at = record.indexOf('"', at + 1)) quotes += 1;
  return quotes % 2 === 1;
}

function cellsOf(record: string, delimiter: string): string[] | null {
  try {
    const [cells] = parse(record, { delimiter, relax_column_count: true, record_delimiter: '\u0000' });
    return (cells as string[] | undefined) ?? [];
  } catch {
    return null;
  }
}
