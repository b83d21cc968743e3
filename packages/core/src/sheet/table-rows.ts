import type { JsonObject } from '../json';
import { MOST_COLUMNS, type SheetRow } from './sheet';

/** A row as its cells, or why it has none. */
export type Cells = { row: number } & ({ cells: readonly string[] } | { text: string; refused: string });

/** Names of columns that tell them apart: blank ones by their place, those that stand twice by a number. */
export function columnNames(cells: readonly string[], header: boolean): string[] {
  const seen = new Map<string, number>();
  return cells.map((cell, index) => {
    const name = (header ? cell.replace(/\s+/g, ' ').trim() : '') || `Column ${index + 1}`;
    const times = (seen.get(name.toLowerCase()) ?? 0) + 1;
    seen.set(name.toLowerCase(), times);
    return times === 1 ? name : `${name} ${times}`;
  });
}

/** A row above the names of the columns, as one that is told of and not read. */
export function aboveHeader(row: Cells): SheetRow {
  if ('refused' in row) return row;
  const text = row.cells.filter((cell) => cell.trim() !== '').join(' | ');
  return { row: row.row, text: text.slice(0, 1_000), refused: 'It is above the column names.' };
}

/** Rows as what they hold by column; blank cells are left out, and so are blank rows. */
export function* rowsByColumn(columns: readonly string[], rows: Iterable<Cells>): Generator<SheetRow> {
  for (const row of rows) {
    if ('refused' in row) {
      yield row;
      continue;
    }
    const { cells } = row;
    const extra = cells.slice(columns.length).filter((cell) => cell.trim() !== '').length;
    if (extra) {
      yield {
        row: row.row,
        text: cells.slice(0, 50).join(' | '),
        refused: `It has ${extra} more filled ${extra === 1 ? 'cell' : 'cells'} than there are columns.`,
      };
      continue;
    }
    const values: JsonObject = {};
    columns.forEach((column, index) => {
      const cell = cells[index]?.trim() ?? '';
      if (cell !== '') values[column] = cell;
    });
    if (Object.keys(values).length) yield { row: row.row, values };
  }
}

/** Why a table is none of people; `null` where it may be one. */
export function tableProblem(columns: readonly string[]): string | null {
  if (!columns.length) return 'There is nothing in the file.';
  if (columns.length > MOST_COLUMNS)
    return `The file has ${columns.length.toLocaleString('en-GB')} columns; at most ${MOST_COLUMNS.toLocaleString('en-GB')} are read. Take away those that are not needed.`;
  return null;
}
