import { HEAD_ROWS, tableHead } from './header-row';
import { records } from './quoted-records';
import type { SheetReading, SheetRow } from './sheet';
import { aboveHeader, rowsByColumn, tableProblem, type Cells } from './table-rows';

const DELIMITERS = [',', ';', '\t', '|'] as const;
/** Rows by which the delimiter is found. */
const LOOKED_AT = 30;

/** A text of delimited values, read: its columns at once, its rows one by one. */
export type ReadDelimited =
  | { ok: true; reading: Omit<SheetReading, 'encoding'>; rows: () => Generator<SheetRow> }
  | { ok: false; problem: string };

/**
 * Reads delimited values (RFC 4180), whatever their delimiter and line ends. A row that cannot be read is refused by
 * itself, with its number and the reason: a quote that is never closed costs its own line, not the rest of the file.
 */
export function readDelimited(text: string): ReadDelimited {
  const { lines, told } = withoutHint(
    text
      .replace(/^\ufeff/, '')
      .replace(/\r\n?/g, '\n')
      .split('\n'),
  );
  const delimiter = told ?? delimiterOf(lines);
  const begin = first(records(lines, delimiter), HEAD_ROWS);
  if (!begin.length) return { ok: false, problem: 'There is nothing in the file.' };
  if (begin.every((row) => 'refused' in row)) return { ok: false, problem: (begin[0] as { refused: string }).refused };
  const { columns, at } = tableHead(begin);
  const problem = tableProblem(columns);
  if (problem) return { ok: false, problem };
  function* rows(): Generator<SheetRow> {
    const all = records(lines, delimiter);
    for (let above = 0; above <= at; above += 1) {
      const { value } = all.next();
      if (above < at) yield aboveHeader(value as Cells);
    }
    yield* rowsByColumn(columns, all);
  }
  return { ok: true, reading: { columns, delimiter, header: at !== -1 }, rows };
}

/** Takes away a first line `sep=;`, which only tells of the delimiter; its place stays, so that rows keep their numbers. */
function withoutHint(lines: readonly string[]): { lines: readonly string[]; told: string | null } {
  const told = /^"?sep=(.)"?\s*$/i.exec(lines[0] ?? '')?.[1] ?? null;
  return told ? { lines: ['', ...lines.slice(1)], told } : { lines, told };
}

function first<T>(all: Iterable<T>, most: number): T[] {
  const taken: T[] = [];
  for (const one of all) {
    taken.push(one);
    if (taken.length >= most) break;
  }
  return taken;
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
