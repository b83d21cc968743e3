import {
  blankRow,
  outputTexts,
  rowTexts,
  withBlock,
  withCell,
  withOutput,
  withoutRows,
  withRowMoved,
  withRows,
  type DecisionTable,
  type TableAround,
  type TableCheck,
} from '@haycart/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState, type ClipboardEvent, type KeyboardEvent } from 'react';
import { CellEditor } from './cell-editor';
import { GridHead, type ColumnSettings } from './grid-head';
import { GridRow } from './grid-row';
import { ROW_HEIGHT } from './measures';
import { blockFrom, blockText, clamped, moved, spanOf, type CellAt, type Selection } from './selection';
import type { RowFigure } from '@haycart/api';

const HEAD_HEIGHT = 49;
const NUMBER = '40px';
const TOOK = '60px';

/** Where the cells of a table stand, edited as in a spreadsheet: by arrows, typing, pasting, and undone as a whole. */
export function TableGrid({
  table,
  around,
  check,
  suggested,
  settings,
  counts,
  showOne,
  sampleRow = null,
  goTo,
  edit,
  undo,
  redo,
}: {
  table: DecisionTable;
  around: TableAround;
  check: TableCheck | null;
  /** What could be typed into the cells of a column. */
  suggested: (column: number) => readonly string[];
  /** What can be changed about the columns; left out, nothing can. */
  settings?: ColumnSettings;
  /** How many submissions each row took, and at the end how many no row took; left out where nobody counts. */
  counts?: readonly RowFigure[] | null;
  /** Shows one of some submissions as the sample. */
  showOne?: (submission: string) => void;
  /** The row that decides for the sample, from 0. */
  sampleRow?: number | null;
  /** A cell to show; a new object each time. */
  goTo: CellAt | null;
  edit: (change: (table: DecisionTable) => DecisionTable) => void;
  undo: () => void;
  redo: () => void;
}) {
  const inputs = table.inputs.length;
  const width = inputs + table.outputs.length + 1;
  const size = { rows: table.rows.length + 1, columns: width };
  const [chosen, setChosen] = useState<Selection>(only({ row: 0, column: 0 }));
  const selection = clamped(chosen, size);
  const [typed, setTyped] = useState<string | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: size.rows,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 10,
    scrollMargin: HEAD_HEIGHT,
    scrollPaddingStart: HEAD_HEIGHT,
  });
  const hasCounts = counts !== undefined;
  const template = `${NUMBER} ${hasCounts ? TOOK : ''} ${'minmax(110px,1fr) '.repeat(inputs)}${'minmax(150px,1.2fr) '.repeat(table.outputs.length)}minmax(120px,1fr)`;
  const span = spanOf(selection);

  const textAt = ({ row, column }: CellAt): string => {
    const own = table.rows[row];
    if (own) return rowTexts(own, table, around)[column] ?? '';
    return outputTexts(table.otherwise ?? {}, table, around.destination)[column - inputs] ?? '';
  };
  const select = (next: Selection) => {
    setChosen(next);
    virtual.scrollToIndex(next.at.row);
    scroller.current?.focus({ preventScroll: true });
  };
  useEffect(() => {
    if (goTo) select(only(goTo));
    // Only a new wish moves it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [goTo]);

  /** Whether what is typed into a cell makes a row: after the last one, but for what is decided otherwise. */
  const makesRow = ({ row, column }: CellAt) => row === table.rows.length && (column < inputs || column === width - 1);
  /** Puts texts in from a cell on; the row after the last takes outputs, and what is typed there before them makes a row. */
  const put = (at: CellAt, block: readonly (readonly string[])[]) =>
    edit((now) => {
      if (at.row === now.rows.length && block.length === 1 && at.column >= inputs && at.column < width - 1)
        return withOtherwise(now, at.column - inputs, block[0]!, around);
      return withBlock(now, [at.row, at.column], block, around);
    });
  const commit = (text: string, key: string, shiftKey = false) => {
    setTyped(null);
    const changed = text !== textAt(selection.at);
    if (changed) put(selection.at, [[text]]);
    const rows = size.rows + (changed && makesRow(selection.at) ? 1 : 0);
    const next = moved(only(selection.at), { key, shiftKey, ctrl: false }, { ...size, rows });
    if (next) select(next);
    else if (key) scroller.current?.focus({ preventScroll: true });
  };
  const clear = () =>
    edit((now) => {
      let changed = now;
      for (let row = span.from.row; row <= span.to.row; row += 1)
        for (let column = span.from.column; column <= span.to.column; column += 1)
          changed = cleared(changed, { row, column }, around);
      return changed;
    });
  const fillDown = () => {
    const { from, to } = span;
    const top = from.row === to.row ? from.row - 1 : from.row;
    if (top < 0) return;
    const texts = range(from.column, to.column).map((column) => textAt({ row: top, column }));
    const rows = Math.max(1, to.row - top);
    edit((now) =>
      withBlock(
        now,
        [top + 1, from.column],
        Array.from({ length: rows }, () => texts),
        around,
      ),
    );
  };
  const move = (by: number) => {
    const to = selection.at.row + by;
    if (to < 0 || to >= table.rows.length || selection.at.row >= table.rows.length) return;
    edit((now) => withRowMoved(now, selection.at.row, to));
    select(only({ ...selection.at, row: to }));
  };

  const keys = (event: KeyboardEvent) => {
    // What is typed elsewhere, such as into a column’s settings, is none of the grid’s.
    if (typed !== null || event.target !== scroller.current) return;
    const { key, shiftKey, altKey } = event;
    const ctrl = event.ctrlKey || event.metaKey;
    const act = (does: () => void) => {
      event.preventDefault();
      event.stopPropagation();
      does();
    };
    if (altKey && (key === 'ArrowUp' || key === 'ArrowDown')) return act(() => move(key === 'ArrowUp' ? -1 : 1));
    if (altKey && key === 'Enter') return act(() => document.getElementById(`took-${selection.at.row}`)?.click());
    if (ctrl && key.toLowerCase() === 'd') return act(fillDown);
    if (ctrl && key.toLowerCase() === 'z') return act(shiftKey ? redo : undo);
    if (ctrl && key.toLowerCase() === 'y') return act(redo);
    if (ctrl && key === 'Enter')
      return act(() => edit((now) => withRows(now, selection.at.row, [blankRow(now.inputs.length)])));
    if (ctrl && shiftKey && key.toLowerCase() === 'k')
      return act(() => edit((now) => withRows(now, span.to.row + 1, now.rows.slice(span.from.row, span.to.row + 1))));
    if (ctrl && key === 'Backspace')
      return act(() => edit((now) => withoutRows(now, span.from.row, Math.min(span.to.row, now.rows.length - 1))));
    if (key === 'Delete' || (key === 'Backspace' && !ctrl)) return act(clear);
    if (key === 'F2' || (key === 'Enter' && !ctrl && !shiftKey)) return act(() => setTyped(textAt(selection.at)));
    const next = key === 'Tab' || key !== 'Enter' ? moved(selection, { key, shiftKey, ctrl }, size) : null;
    if (next) return act(() => select(next));
    if (!ctrl && !altKey && key.length === 1) return act(() => setTyped(key));
  };
  const copy = (event: ClipboardEvent) => {
    if (typed !== null || event.target !== scroller.current) return;
    event.preventDefault();
    const rows = range(span.from.row, span.to.row).map((row) =>
      range(span.from.column, span.to.column).map((column) => textAt({ row, column })),
    );
    event.clipboardData.setData('text/plain', blockText(rows));
    if (event.type === 'cut') clear();
  };
  const paste = (event: ClipboardEvent) => {
    if (typed !== null || event.target !== scroller.current) return;
    event.preventDefault();
    put(span.from, blockFrom(event.clipboardData.getData('text/plain')));
  };

  return (
    <div
      ref={scroller}
      role="grid"
      aria-label={table.name}
      aria-rowcount={size.rows + 1}
      aria-colcount={width + (hasCounts ? 2 : 1)}
      aria-multiselectable
      aria-activedescendant={`cell-${selection.at.row}-${selection.at.column}`}
      tabIndex={0}
      onKeyDown={keys}
      onCopy={copy}
      onCut={copy}
      onPaste={paste}
      className="min-h-0 flex-1 overflow-auto rounded border border-line bg-raised outline-none focus-visible:outline-2 focus-visible:outline-slate"
    >
      <div style={{ minWidth: 100 + inputs * 110 + table.outputs.length * 150 + 120 }}>
        <GridHead
          table={table}
          around={around}
          template={template}
          total={counts && counts.reduce((sum, figure) => sum + figure.count, 0)}
          settings={settings}
        />
        <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map(({ index, start }) => (
            <GridRow
              key={index}
              index={index}
              top={start - HEAD_HEIGHT}
              template={template}
              inputs={inputs}
              texts={
                table.rows[index]
                  ? rowTexts(table.rows[index], table, around)
                  : [
                      ...Array<string>(inputs).fill(''),
                      ...outputTexts(table.otherwise ?? {}, table, around.destination),
                      '',
                    ]
              }
              isOtherwise={index === table.rows.length}
              finding={check?.rows.find(({ row }) => row === index)}
              unsure={check?.unsure.filter(({ row }) => row === index).map(({ column }) => column) ?? []}
              hasCounts={hasCounts}
              figure={counts?.[index]}
              showOne={showOne}
              isSample={sampleRow === index}
              span={span}
              at={selection.at}
              editor={
                typed !== null && selection.at.row === index ? (
                  <CellEditor
                    first={typed}
                    suggested={suggested(selection.at.column)}
                    commit={commit}
                    cancel={() => {
                      setTyped(null);
                      scroller.current?.focus({ preventScroll: true });
                    }}
                  />
                ) : null
              }
              select={(column, wider) => {
                const at = { row: index, column };
                setTyped(null);
                select(wider ? { at, anchor: selection.anchor } : only(at));
              }}
              begin={(column) => {
                select(only({ row: index, column }));
                setTyped(textAt({ row: index, column }));
              }}
              dropped={(from) => edit((now) => withRowMoved(now, from, Math.min(index, now.rows.length - 1)))}
            />
          ))}
        </div>
      </div>
    </div>
  );
}

function only(at: CellAt): Selection {
  return { at, anchor: at };
}

function range(from: number, to: number): number[] {
  return Array.from({ length: to - from + 1 }, (_, index) => from + index);
}

/** What is decided otherwise, with texts from an output on. */
function withOtherwise(
  table: DecisionTable,
  output: number,
  texts: readonly string[],
  { destination }: TableAround,
): DecisionTable {
  const said = table.outputs
    .slice(output, output + texts.length)
    .reduce((then, one, index) => withOutput(then, one, texts[index]!, destination), table.otherwise ?? {});
  const { otherwise: _, ...rest } = table;
  return Object.keys(said).length ? { ...rest, otherwise: said } : rest;
}

function cleared(table: DecisionTable, { row, column }: CellAt, around: TableAround): DecisionTable {
  const own = table.rows[row];
  if (own) return { ...table, rows: table.rows.with(row, withCell(own, column, '', table, around)) };
  const output = column - table.inputs.length;
  return output >= 0 && output < table.outputs.length ? withOtherwise(table, output, [''], around) : table;
}
