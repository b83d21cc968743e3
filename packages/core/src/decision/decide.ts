import type { Destination } from '../destination/destination';
import type { FieldValue } from '../diff/record';
import { comparedCell, goesByTime, meetsCell, type CellCompared, type CellSetting } from './cell';
import { columnsOf, type Column, type TableAround } from './column';
import type { DecisionRow, DecisionTable } from './decision-table';

/** A table made ready to decide: its columns, and for each row what its cells compare with. */
export interface ReadyTable {
  table: DecisionTable;
  columns: readonly Column[];
  /** The cells of a row that say something, by column; a text says why one cannot be read. */
  rows: readonly (readonly ReadyCell[])[];
}

interface ReadyCell {
  column: number;
  /** `null`: to be read anew for each submission, since it goes by the time of arrival. */
  compared: CellCompared | string | null;
}

/** What a table decides. */
export interface Decision {
  /** The row that decides, from 0; `null` where none fits. */
  row: number | null;
  /** Whether it comes from what is decided otherwise. */
  otherwise: boolean;
  then: Readonly<Record<string, unknown>>;
  /** Why nothing can be decided, as a sentence. */
  problem?: string;
}

/** What cells compare with at a moment (ISO 8601). */
export function cellSetting({ defaultCurrency, teams = {}, valueSets = {} }: Destination, now: string): CellSetting {
  return { now, defaultCurrency, teams, valueSets };
}

/** Whether a test makes sense does not depend on the time. */
const ANY_TIME = '2026-01-01T00:00:00.000Z';

const ready = new WeakMap<DecisionTable, { destination: Destination; ready: ReadyTable }>();

/** A table made ready; remembered, since the same one decides for many submissions. */
export function readyTable(table: DecisionTable, around: TableAround): ReadyTable {
  const before = ready.get(table);
  if (before?.destination === around.destination) return before.ready;
  const made = makeReady(table, around);
  ready.set(table, { destination: around.destination, ready: made });
  return made;
}

function makeReady(table: DecisionTable, around: TableAround): ReadyTable {
  const columns = columnsOf(table, around);
  const setting = cellSetting(around.destination, ANY_TIME);
  const rows = table.rows.map(({ when }) =>
    columns.flatMap((column, index): ReadyCell[] => {
      const cell = when[index];
      if (!cell) return [];
      return [{ column: index, compared: goesByTime(cell) ? null : comparedCell(cell, column, setting) }];
    }),
  );
  return { table, columns, rows };
}

/** What a table decides upon the values of its columns. */
export function decide(ready: ReadyTable, values: readonly (FieldValue | null)[], setting: CellSetting): Decision {
  const { table } = ready;
  const fitting: number[] = [];
  for (let row = 0; row < ready.rows.length; row += 1) {
    const met = rowFits(ready, row, values, setting);
    if (typeof met === 'string')
      return { row, otherwise: false, then: {}, problem: `Row ${row + 1} cannot be read: ${met}` };
    if (!met) continue;
    fitting.push(row);
    if (table.fits !== 'one' || fitting.length > 1) break;
  }
  const [first, second] = fitting;
  if (second !== undefined)
    return {
      row: first!,
      otherwise: false,
      then: {},
      problem: `Rows ${first! + 1} and ${second + 1} both fit, and exactly one may.`,
    };
  if (first !== undefined) return { row: first, otherwise: false, then: table.rows[first]!.then };
  return { row: null, otherwise: table.otherwise !== undefined, then: table.otherwise ?? {} };
}

/** Whether a row fits; a sentence where one of its cells cannot be read and no other rules it out. */
function rowFits(
  { rows, columns, table }: ReadyTable,
  row: number,
  values: readonly (FieldValue | null)[],
  setting: CellSetting,
): boolean | string {
  let unreadable: string | undefined;
  for (const { column, compared } of rows[row]!) {
    const now = compared ?? comparedCell(table.rows[row]!.when[column]!, columns[column]!, setting);
    if (typeof now === 'string') unreadable ??= now;
    else if (!meetsCell(now, values[column] ?? null)) return false;
  }
  return unreadable ?? true;
}

/** For each row up to one: the first column whose cell keeps it from fitting, or `null` where it fits. */
export function missesBefore(
  ready: ReadyTable,
  until: number,
  values: readonly (FieldValue | null)[],
  setting: CellSetting,
): (number | null)[] {
  return ready.rows.slice(0, until).map((cells, row) => {
    const miss = cells.find(({ column, compared }) => {
      const now = compared ?? comparedCell(ready.table.rows[row]!.when[column]!, ready.columns[column]!, setting);
      return typeof now === 'string' || !meetsCell(now, values[column] ?? null);
    });
    return miss?.column ?? null;
  });
}

/** A row that tests nothing. */
export function blankRow(inputs: number): DecisionRow {
  return { when: Array.from({ length: inputs }, () => null), then: {} };
}
