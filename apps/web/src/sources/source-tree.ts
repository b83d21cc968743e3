import { SOURCE_PARTS, type SourceRow, type SourcesReport } from '@haycart/api';

/** What rows can go by, from the outside in. */
export const ROW_PARTS = ['splitValue', ...SOURCE_PARTS] as const;
export type RowPart = (typeof ROW_PARTS)[number];

/** A row of the table with those below it, and what it brought in the period it is compared with. */
export interface SourceLine {
  key: string;
  row: SourceRow;
  /** How far it is told apart, from 0. */
  depth: number;
  /** What it goes by at that depth. */
  part: RowPart;
  name: string;
  wonBefore: number | null;
  below: SourceLine[];
}

/** The rows of a report as a tree, in their order. */
export function sourceTree(report: SourcesReport, before: SourcesReport | undefined): SourceLine[] {
  const won = new Map(before && [...before.groups, ...before.rows].map((row) => [keyOf(row), row.won]));
  const lines = [...report.groups, ...report.rows].map((row): SourceLine => {
    const parts = ROW_PARTS.filter((part) => row[part] !== undefined);
    const part = parts.at(-1)!;
    const key = keyOf(row);
    const wonBefore = before ? (won.get(key) ?? 0) : null;
    return { key, row, depth: parts.length - 1, part, name: row[part]!, wonBefore, below: [] };
  });
  const known = new Map(lines.map((line) => [line.key, line]));
  for (const line of lines) {
    const above = known.get(JSON.stringify(pathOf(line.row).slice(0, -1)));
    above?.below.push(line);
  }
  return lines.filter(({ depth }) => depth === 0);
}

/** Those that are shown: of each that is opened what is below it, as far as that tells more than itself. */
export function shownLines(lines: readonly SourceLine[], opened: ReadonlySet<string>): SourceLine[] {
  return lines.flatMap((line) => [line, ...(opened.has(line.key) ? shownLines(line.below, opened) : [])]);
}

/** Whether what is below a row tells more than the row: something is named there. */
export function opens({ below }: SourceLine): boolean {
  return below.some(({ name }) => name !== '');
}

/** What a row goes by, from the outside in. */
export function pathOf(row: SourceRow): string[] {
  return ROW_PARTS.flatMap((part) => (row[part] === undefined ? [] : [row[part]]));
}

function keyOf(row: SourceRow): string {
  return JSON.stringify(pathOf(row));
}
