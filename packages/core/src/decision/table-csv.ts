import { parse } from 'csv-parse/browser/esm/sync';
import { stringify } from 'csv-stringify/browser/esm/sync';
import { counted, listInWords } from '../text';
import type { TableAround } from './column';
import { blankRow } from './decide';
import { TABLE_LIMITS, type DecisionRow, type DecisionTable } from './decision-table';
import { outputTexts, rowTexts, withCell, withOutput } from './edit-table';

/** A table from a file, or why it is none; `notes` tell what of it had no place. */
export type ReadTableCsv = { ok: true; table: DecisionTable; notes: string[] } | { ok: false; text: string };

const ROW = 'Row';
const NOTE = 'Note';
const OTHERWISE = 'otherwise';
/** 20 MB of text is far more than a table can hold. */
const LONGEST_FILE = 20_000_000;

/**
 * A table as CSV (RFC 4180): a header, a line for each row with its number, and one more for what is decided otherwise.
 * `readTableCsv` reads the same table from it.
 */
export function tableCsv(table: DecisionTable, around: TableAround): string {
  const lines = table.rows.map((row, index) => [String(index + 1), ...rowTexts(row, table, around)]);
  if (table.otherwise)
    lines.push([
      OTHERWISE,
      ...table.inputs.map(() => ''),
      ...outputTexts(table.otherwise, table, around.destination),
      '',
    ]);
  return stringify([headerOf(table), ...lines], { record_delimiter: '\r\n' });
}

function headerOf({ inputs, outputs }: DecisionTable): string[] {
  return [ROW, ...inputs.map(({ label }) => label), ...outputs.map(({ name }) => `→ ${name}`), NOTE];
}

/**
 * The rows of a table from CSV. Columns are found by their names in any order; those that the file lacks are left blank, and
 * what the table lacks, or stands beyond the header, is told. Cells that cannot be read are kept as they are written.
 */
export function readTableCsv(text: string, table: DecisionTable, around: TableAround): ReadTableCsv {
  if (text.length > LONGEST_FILE) return { ok: false, text: 'The file is larger than a table can be.' };
  const read = readLines(text);
  if (typeof read === 'string') return { ok: false, text: read };
  const [header = [], ...lines] = read;
  const plain = (name: string) =>
    name
      .replace(/^(→|->)\s*/, '')
      .trim()
      .toLowerCase();
  const wanted = headerOf(table);
  const places = header.map((name) => wanted.findIndex((one) => plain(one) === plain(name)));
  if (!places.some((place) => place > 0 && place < wanted.length - 1))
    return { ok: false, text: `The first line names none of the columns: ${listInWords(wanted.slice(1, -1))}.` };
  if (lines.length > TABLE_LIMITS.rows + 1)
    return {
      ok: false,
      text: `The file has ${counted(lines.length, 'row')}; a table has at most ${TABLE_LIMITS.rows}.`,
    };
  const rows: DecisionRow[] = [];
  let otherwise: Record<string, unknown> | undefined;
  let tooLong = 0;
  for (const cells of lines) {
    if (cells.length > header.length && cells.slice(header.length).some((cell) => cell.trim() !== '')) tooLong += 1;
    const isOtherwise = cells[places.indexOf(0)]?.trim().toLowerCase() === OTHERWISE;
    if (isOtherwise) otherwise = otherwiseFrom(cells, places, table, around);
    else rows.push(rowFrom(cells, places, table, around));
  }
  const unknown = header.filter((name, index) => places[index] === -1 && name.trim() !== '');
  const names = [...table.inputs.map(({ label }) => label), ...table.outputs.map(({ name }) => name)];
  const missing = names.filter((_, index) => !places.includes(index + 1));
  const notes = [
    ...(unknown.length
      ? [`The table has no column ${listInWords(unknown.map((name) => `“${name}”`))}; left out.`]
      : []),
    ...(missing.length
      ? [`The file has no column ${listInWords(missing.map((name) => `“${name}”`))}; left blank.`]
      : []),
    ...(tooLong
      ? [
          `${counted(tooLong, 'row')} ${tooLong === 1 ? 'is' : 'are'} longer than the header; what is beyond was left out.`,
        ]
      : []),
  ];
  const { otherwise: _, ...rest } = table;
  return { ok: true, table: { ...rest, rows, ...(otherwise ? { otherwise } : {}) }, notes };
}

function readLines(text: string): string[][] | string {
  const head = text.slice(0, text.search(/[\r\n]|$/));
  const delimiter = [',', ';', '\t'].sort((one, other) => head.split(other).length - head.split(one).length)[0]!;
  try {
    return parse(text, { bom: true, relax_column_count: true, skip_empty_lines: true, delimiter }) as string[][];
  } catch (problem) {
    return `The file cannot be read as CSV: ${problem instanceof Error ? problem.message : String(problem)}`;
  }
}

function rowFrom(
  cells: readonly string[],
  places: readonly number[],
  table: DecisionTable,
  around: TableAround,
): DecisionRow {
  let row = blankRow(table.inputs.length);
  places.forEach((place, index) => {
    if (place > 0) row = withCell(row, place - 1, cells[index] ?? '', table, around);
  });
  return row;
}

function otherwiseFrom(
  cells: readonly string[],
  places: readonly number[],
  { inputs, outputs }: DecisionTable,
  { destination }: TableAround,
): Record<string, unknown> {
  return outputs.reduce<Record<string, unknown>>((then, output, o) => {
    const at = places.indexOf(1 + inputs.length + o);
    return withOutput(then, output, cells[at] ?? '', destination);
  }, {});
}
