import type { NeverCame, TableCheck } from '@haycart/core';

/** Cells of one column of which the same is to be said, so that it is said once. */
export interface SameCells {
  column: number;
  /** Why they cannot be read, or what stands in them. */
  text: string;
  rows: number[];
}

/** Cells that cannot be read, by why. */
export function unreadableCells({ rows }: Pick<TableCheck, 'rows'>): SameCells[] {
  return grouped(
    rows.flatMap(({ row, unreadable = [] }) => unreadable.map(({ column, text }) => ({ row, column, text }))),
  );
}

/** Cells that nothing met which came so far, by what stands in them; each with what came instead. */
export function cellsNeverMet(
  neverCame: readonly NeverCame[],
  textAt: (row: number, column: number) => string,
): (SameCells & Pick<NeverCame, 'came'>)[] {
  const same = grouped(neverCame.map(({ row, column }) => ({ row, column, text: textAt(row, column) })));
  return same.map((one) => ({ ...one, came: neverCame.find(({ column }) => column === one.column)!.came }));
}

function grouped(cells: readonly { row: number; column: number; text: string }[]): SameCells[] {
  const found = new Map<string, SameCells>();
  for (const { row, column, text } of cells) {
    const key = `${column} ${text}`;
    const same = found.get(key);
    if (same) same.rows.push(row);
    else found.set(key, { column, text, rows: [row] });
  }
  return [...found.values()];
}
