import type { Destination } from '../destination/destination';
import type { TableAround } from './column';
import { columnsOf } from './column';
import { blankRow } from './decide';
import {
  TABLE_LIMITS,
  type CellTest,
  type DecisionInput,
  type DecisionOutput,
  type DecisionRow,
  type DecisionTable,
} from './decision-table';
import { readCell, showCell, UNREAD } from './notation/cell-text';
import type { CellNames } from './notation/family-notation';
import { readOutput, showOutput, unreadOutput } from './notation/output-text';

/** What cells may call by name in a workspace. */
export function cellNames({ valueSets = {}, teams = {}, defaultCurrency }: Destination): CellNames {
  return { valueSets, teams, defaultCurrency };
}

/** The texts of a row as they are typed: of its inputs, its outputs and its note. */
export function rowTexts(row: DecisionRow, table: DecisionTable, around: TableAround): string[] {
  const columns = columnsOf(table, around);
  const names = cellNames(around.destination);
  return [
    ...columns.map((column, index) => showCell(row.when[index] ?? null, column, names)),
    ...outputTexts(row.then, table, around.destination),
    row.note ?? '',
  ];
}

/** The texts of what is decided. */
export function outputTexts(
  then: Readonly<Record<string, unknown>>,
  { outputs }: DecisionTable,
  destination: Destination,
): string[] {
  return outputs.map(({ name, type }) => showOutput(then[name], type, destination));
}

/** A row with a text typed into one of its columns. What cannot be read is kept as it was typed, for the check to tell. */
export function withCell(
  row: DecisionRow,
  at: number,
  typed: string,
  table: DecisionTable,
  around: TableAround,
): DecisionRow {
  const inputs = table.inputs.length;
  if (at < inputs) {
    const column = columnsOf(table, around)[at]!;
    const read = readCell(typed, column, cellNames(around.destination));
    const cell: CellTest | null = read.ok ? read.cell : { test: UNREAD, value: typed };
    const when = Array.from({ length: inputs }, (_, index) => (index === at ? cell : (row.when[index] ?? null)));
    return { ...row, when };
  }
  const output = table.outputs[at - inputs];
  if (output) return { ...row, then: withOutput(row.then, output, typed, around.destination) };
  const { note: _, ...rest } = row;
  return typed.trim() === '' ? rest : { ...rest, note: typed.trim().slice(0, 2_000) };
}

/** What is decided, with a text typed for one of the outputs. */
export function withOutput(
  then: Readonly<Record<string, unknown>>,
  { name, type }: DecisionOutput,
  typed: string,
  destination: Destination,
): Record<string, unknown> {
  const read = readOutput(typed, type, destination);
  const { [name]: _, ...rest } = then;
  const value = read.ok ? read.value : unreadOutput(typed);
  return value === undefined ? rest : { ...rest, [name]: value };
}

/**
 * A block of texts put into a table from a row and a column on, as when it is pasted; rows are added where it reaches
 * beyond the last. What is wider than the table is left out.
 */
export function withBlock(
  table: DecisionTable,
  [row, column]: readonly [number, number],
  block: readonly (readonly string[])[],
  around: TableAround,
): DecisionTable {
  const width = table.inputs.length + table.outputs.length + 1;
  const rows = [...table.rows];
  block.slice(0, Math.max(0, TABLE_LIMITS.rows - row)).forEach((texts, down) => {
    while (rows.length < row + down) rows.push(blankRow(table.inputs.length));
    let changed = rows[row + down] ?? blankRow(table.inputs.length);
    texts.slice(0, width - column).forEach((text, right) => {
      changed = withCell(changed, column + right, text, table, around);
    });
    rows[row + down] = changed;
  });
  return { ...table, rows };
}

/** Rows put in before one; as many as a table may have. */
export function withRows(table: DecisionTable, at: number, rows: readonly DecisionRow[]): DecisionTable {
  return { ...table, rows: table.rows.toSpliced(at, 0, ...rows).slice(0, TABLE_LIMITS.rows) };
}

export function withoutRows(table: DecisionTable, from: number, to: number): DecisionTable {
  return { ...table, rows: table.rows.toSpliced(from, to - from + 1) };
}

/** A row moved to another place. */
export function withRowMoved(table: DecisionTable, from: number, to: number): DecisionTable {
  const row = table.rows[from];
  if (!row || to < 0 || to >= table.rows.length) return table;
  return { ...table, rows: table.rows.toSpliced(from, 1).toSpliced(to, 0, row) };
}

/** A column of tests more, which tests nothing yet. */
export function withInput(table: DecisionTable, input: DecisionInput): DecisionTable {
  const inputs = table.inputs.length;
  const rows = table.rows.map((row) => ({ ...row, when: [...padded(row.when, inputs), null] }));
  return { ...table, inputs: [...table.inputs, input], rows };
}

export function withoutInput(table: DecisionTable, at: number): DecisionTable {
  const rows = table.rows.map((row) => ({ ...row, when: padded(row.when, table.inputs.length).toSpliced(at, 1) }));
  return { ...table, inputs: table.inputs.toSpliced(at, 1), rows };
}

/** A column read in another way; its cells are read anew from what was typed, so that none is lost. */
export function withInputChanged(
  table: DecisionTable,
  at: number,
  input: DecisionInput,
  around: TableAround,
): DecisionTable {
  const changed = { ...table, inputs: table.inputs.with(at, input) };
  const [before, after] = [columnsOf(table, around)[at]!, columnsOf(changed, around)[at]!];
  if (before.family === after.family && before.type === after.type) return changed;
  const names = cellNames(around.destination);
  const rows = changed.rows.map((row) =>
    row.when[at] ? withCell(row, at, showCell(row.when[at], before, names), changed, around) : row,
  );
  return { ...changed, rows };
}

/** Another name or type for an output; what rows say of it is read anew. */
export function withOutputChanged(
  table: DecisionTable,
  at: number,
  output: DecisionOutput,
  destination: Destination,
): DecisionTable {
  const before = table.outputs[at]!;
  const outputs = table.outputs.with(at, output);
  const change = (then: Readonly<Record<string, unknown>>) => {
    const { [before.name]: said, ...rest } = then;
    if (said === undefined) return rest;
    if (before.type === output.type) return { ...rest, [output.name]: said };
    return withOutput(rest, output, showOutput(said, before.type, destination), destination);
  };
  return withThen({ ...table, outputs }, change);
}

export function withoutOutput(table: DecisionTable, at: number): DecisionTable {
  const { name } = table.outputs[at]!;
  return withThen({ ...table, outputs: table.outputs.toSpliced(at, 1) }, ({ [name]: _, ...rest }) => rest);
}

function withThen(
  table: DecisionTable,
  change: (then: Readonly<Record<string, unknown>>) => Record<string, unknown>,
): DecisionTable {
  return {
    ...table,
    rows: table.rows.map((row) => ({ ...row, then: change(row.then) })),
    ...(table.otherwise ? { otherwise: change(table.otherwise) } : {}),
  };
}

function padded(when: DecisionRow['when'], length: number): DecisionRow['when'] {
  return Array.from({ length }, (_, index) => when[index] ?? null);
}
