import { diff3Merge } from 'node-diff3';
import type { DecisionRow, DecisionTable } from '../../decision/decision-table';

/**
 * The rows of a table that two people changed: rows that only one of them added, took away, moved or changed are as they left
 * them, and rows that both changed are brought together cell by cell. What cannot be, stands as in mine, and is told.
 *
 * @param name Of the table, for the words.
 */
export function mergedRows(
  name: string,
  base: readonly DecisionRow[],
  mine: readonly DecisionRow[],
  theirs: readonly DecisionRow[],
  clashes: string[],
): DecisionRow[] {
  const texts = (rows: readonly DecisionRow[]) => rows.map((row) => JSON.stringify(row));
  const regions = diff3Merge(texts(mine), texts(base), texts(theirs), { excludeFalseConflicts: true });
  return regions.flatMap(({ ok, conflict }) => {
    if (ok) return ok.map(rowIn);
    const [own, was, other] = [conflict!.a, conflict!.o, conflict!.b].map((rows) => rows.map(rowIn));
    if (own!.length === was!.length && other!.length === was!.length)
      return own!.map((row, index) => mergedRow(name, was![index]!, row, other![index]!, clashes));
    clashes.push(`Rows of ${name} were put in or taken away by both at the same place; there yours stand.`);
    return own!;
  });
}

function rowIn(text: string): DecisionRow {
  return JSON.parse(text) as DecisionRow;
}

function mergedRow(
  name: string,
  was: DecisionRow,
  own: DecisionRow,
  other: DecisionRow,
  clashes: string[],
): DecisionRow {
  const cell = <T>(before: T, one: T, two: T): T => {
    const [b, o, t] = [before, one, two].map((value) => JSON.stringify(value ?? null));
    if (o === t || t === b) return one;
    if (o === b) return two;
    clashes.push(`A cell of ${name} was changed by both; there yours is kept.`);
    return one;
  };
  const width = Math.max(own.when.length, other.when.length);
  const outputs = new Set([...Object.keys(own.then), ...Object.keys(other.then)]);
  const then = [...outputs].flatMap((output) => {
    const value = cell(was.then[output], own.then[output], other.then[output]);
    return value === undefined ? [] : [[output, value] as const];
  });
  const note = cell(was.note, own.note, other.note);
  return {
    when: Array.from({ length: width }, (_, at) =>
      cell(was.when[at] ?? null, own.when[at] ?? null, other.when[at] ?? null),
    ),
    then: Object.fromEntries(then),
    ...(note === undefined ? {} : { note }),
  };
}

/** Whether two tables have the same columns, so that rows of the one can stand in the other. */
export function sameColumns(one: DecisionTable, other: DecisionTable): boolean {
  const columns = ({ inputs, outputs }: DecisionTable) => JSON.stringify([inputs, outputs]);
  return columns(one) === columns(other);
}
