/** A cell of the grid by row and column; the row after the last is what is decided otherwise. */
export interface CellAt {
  row: number;
  column: number;
}

/** The cell that keys go to, and the other corner of what is selected. */
export interface Selection {
  at: CellAt;
  anchor: CellAt;
}

export interface GridSize {
  rows: number;
  columns: number;
}

export interface Span {
  from: CellAt;
  to: CellAt;
}

/** What is selected, from its upper left to its lower right cell. */
export function spanOf({ at, anchor }: Selection): Span {
  return {
    from: { row: Math.min(at.row, anchor.row), column: Math.min(at.column, anchor.column) },
    to: { row: Math.max(at.row, anchor.row), column: Math.max(at.column, anchor.column) },
  };
}

export function isInside({ row, column }: CellAt, { from, to }: Span): boolean {
  return from.row <= row && row <= to.row && from.column <= column && column <= to.column;
}

/** The same, within a grid that may have lost rows meanwhile. */
export function clamped({ at, anchor }: Selection, { rows, columns }: GridSize): Selection {
  const within = ({ row, column }: CellAt): CellAt => ({
    row: Math.min(rows - 1, row),
    column: Math.min(columns - 1, column),
  });
  return { at: within(at), anchor: within(anchor) };
}

const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-20, 0],
  PageDown: [20, 0],
};

/**
 * Where a key leads from a selection; `null` for a key that moves nothing. Shift makes it wider, Control goes to the edge; Tab
 * and Enter go on to the next cell, and at the end of a row to the next row.
 */
export function moved(
  selection: Selection,
  { key, shiftKey, ctrl }: { key: string; shiftKey: boolean; ctrl: boolean },
  { rows, columns }: GridSize,
): Selection | null {
  const { at } = selection;
  const within = (row: number, column: number): CellAt => ({
    row: Math.max(0, Math.min(rows - 1, row)),
    column: Math.max(0, Math.min(columns - 1, column)),
  });
  const only = (cell: CellAt): Selection => ({ at: cell, anchor: cell });
  if (key === 'Tab') {
    const next = at.row * columns + at.column + (shiftKey ? -1 : 1);
    if (next < 0 || next >= rows * columns) return null;
    return only({ row: Math.floor(next / columns), column: next % columns });
  }
  if (key === 'Enter') return only(within(at.row + (shiftKey ? -1 : 1), at.column));
  const edges: Record<string, CellAt> = {
    Home: ctrl ? { row: 0, column: 0 } : { row: at.row, column: 0 },
    End: ctrl ? { row: rows - 1, column: columns - 1 } : { row: at.row, column: columns - 1 },
  };
  const step = STEPS[key];
  if (!step && !edges[key]) return null;
  const far = ctrl ? Math.max(rows, columns) : 1;
  const next = edges[key] ?? within(at.row + step![0] * far, at.column + step![1] * far);
  return shiftKey ? { at: next, anchor: selection.anchor } : only(next);
}

/** A block of texts as spreadsheets hand it over: a line a row, tabs between; texts with tabs, lines or quotes are quoted. */
export function blockFrom(text: string): string[][] {
  const rows: string[][] = [[]];
  let at = 0;
  const push = (cell: string) => rows[rows.length - 1]!.push(cell);
  while (at <= text.length) {
    let cell = '';
    if (text[at] === '"') {
      at += 1;
      while (at < text.length && !(text[at] === '"' && text[at + 1] !== '"')) {
        cell += text[at]!;
        at += text[at] === '"' ? 2 : 1;
      }
      at += 1;
    }
    while (at < text.length && text[at] !== '\t' && text[at] !== '\n') {
      cell += text[at]!;
      at += 1;
    }
    push(cell.replace(/\r$/, ''));
    if (text[at] === '\n') rows.push([]);
    at += 1;
  }
  const last = rows[rows.length - 1]!;
  return last.length === 1 && last[0] === '' && rows.length > 1 ? rows.slice(0, -1) : rows;
}

/** A block as spreadsheets take it. */
export function blockText(rows: readonly (readonly string[])[]): string {
  const cell = (text: string) => (/[\t\n"]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);
  return rows.map((row) => row.map(cell).join('\t')).join('\n');
}
