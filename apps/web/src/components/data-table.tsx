import { flexRender, getCoreRowModel, useReactTable, type ColumnDef } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState, type CSSProperties, type KeyboardEvent, type ReactNode } from 'react';
import { usePageKeys } from './list-keys';
import { ColumnHead, type TableSort } from './table-head';

declare module '@tanstack/react-table' {
  // eslint-disable-next-line @typescript-eslint/no-unused-vars -- the library's own type parameters
  interface ColumnMeta<TData, TValue> {
    /** A share of the width, as CSS grid takes it: `120px`, `minmax(0,2fr)`. */
    width: string;
    /** Right-aligned, for numbers. */
    numeric?: boolean;
    /** Left out on narrow screens. */
    wide?: boolean;
    /** By what the list is sorted when one chooses this head. */
    sortBy?: string;
  }
}

/** Which rows are chosen, and how one chooses others. */
export interface TableChoice {
  chosen: ReadonlySet<string>;
  choose: (ids: readonly string[], chosen: boolean) => void;
}

/** How many rows the keys go on by. */
const ARROWS: Record<string, number | undefined> = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10 };

const ROW = 32;
/** The head and the line beneath it. */
const HEAD = 33;
/** How many rows before the end the next page is asked for. */
const AHEAD = 30;
const CHOICE = '34px';

/** The one table: virtual, with j / k / Enter / x, and further pages read as one scrolls. Rows are 32 px. */
export function DataTable<Row extends { id: string }>({
  columns,
  rows,
  label,
  open,
  opened,
  more,
  total,
  empty,
  nameOf,
  sort,
  choice,
  resize,
}: {
  columns: ColumnDef<Row>[];
  rows: Row[];
  /** What the table holds, for screen readers. */
  label: string;
  open?: (row: Row) => void;
  /** The id of the row that is open. */
  opened?: string | undefined;
  /** Reads the next page; absent when all is there. */
  more?: (() => void) | undefined;
  total?: number | undefined;
  empty: ReactNode;
  /** What a row is called where its box is read out. */
  nameOf?: (row: Row) => string;
  sort?: TableSort | undefined;
  choice?: TableChoice | undefined;
  /** Takes the width in pixels that somebody gave a column. */
  resize?: ((column: string, width: number) => void) | undefined;
}) {
  const table = useReactTable({ data: rows, columns, getCoreRowModel: getCoreRowModel(), getRowId: (row) => row.id });
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
    scrollMargin: HEAD,
    scrollPaddingStart: HEAD,
  });
  const [current, setCurrent] = useState(-1);
  const [dragged, setDragged] = useState<{ column: string; width: number } | null>(null);
  const items = virtual.getVirtualItems();
  const last = items[items.length - 1]?.index ?? 0;

  useEffect(() => {
    if (more && last >= rows.length - AHEAD) more();
  }, [more, last, rows.length]);

  const openedIndex = opened === undefined ? -1 : rows.findIndex(({ id }) => id === opened);
  const step = (by: number) => {
    const from = current >= 0 ? current : openedIndex;
    const next = Math.min(rows.length - 1, Math.max(0, from + by));
    setCurrent(next);
    virtual.scrollToIndex(next);
    // Keys go to the list from now on, not to the link or button that had them.
    scroller.current?.focus({ preventScroll: true });
    if (opened !== undefined && rows[next]) open?.(rows[next]);
  };
  // A range goes from the box that was ticked last to the one with Shift held down.
  const tickedLast = useRef<number | null>(null);
  const tick = (index: number, add: boolean, range: boolean) => {
    const from = range ? (tickedLast.current ?? index) : index;
    tickedLast.current = index;
    const [first, last] = from < index ? [from, index] : [index, from];
    choice?.choose(
      rows.slice(first, last + 1).map(({ id }) => id),
      add,
    );
  };
  const here = rows[current];
  usePageKeys({
    j: () => step(1),
    k: () => step(-1),
    ...(here && choice ? { x: () => tick(current, !choice.chosen.has(here.id), false) } : {}),
    ...(here ? { Enter: () => open?.(here) } : {}),
  });

  // Arrows scroll whatever has the focus; here that is the list.
  const arrows = (event: KeyboardEvent) => {
    const by = ARROWS[event.key];
    if (by === undefined || event.target !== event.currentTarget) return;
    event.preventDefault();
    step(by);
  };

  const shown = table.getAllLeafColumns();
  const widthOf = (id: string, width: string | undefined) =>
    dragged?.column === id ? `${dragged.width}px` : (width ?? '1fr');
  const widths = (narrow: boolean) => [
    ...(choice && !narrow ? [CHOICE] : []),
    ...shown
      .filter(({ columnDef }) => !narrow || !columnDef.meta?.wide)
      .map(({ id, columnDef }) => widthOf(id, columnDef.meta?.width)),
  ];
  const template = {
    '--columns': widths(false).join(' '),
    '--columns-narrow': widths(true).join(' '),
    '--table-width': `${leastWidth(widths(false))}px`,
  } as CSSProperties;
  const grid = 'grid grid-cols-(--columns-narrow) md:grid-cols-(--columns)';
  const cell = (meta: { numeric?: boolean; wide?: boolean } | undefined) =>
    `min-w-0 truncate px-2.5 ${meta?.numeric ? 'text-right' : ''} ${meta?.wide ? 'max-md:hidden' : ''}`;
  const allChosen = choice !== undefined && rows.length > 0 && rows.every(({ id }) => choice.chosen.has(id));

  // The head stands inside what scrolls, so that its columns are as wide as those beneath, scroll bar or not.
  const head = (
    <div role="rowgroup" className="sticky top-0 z-10 flex-none border-b border-line bg-sheet md:min-w-(--table-width)">
      {table.getHeaderGroups().map((group) => (
        <div
          role="row"
          key={group.id}
          aria-rowindex={1}
          className={`${grid} h-8 items-center text-label font-semibold text-muted`}
        >
          {choice && (
            <span role="columnheader" className="flex justify-center max-md:hidden">
              <input
                type="checkbox"
                aria-label="Choose all that are shown"
                className="size-3.5 accent-green"
                checked={allChosen}
                onChange={({ target }) =>
                  choice.choose(
                    rows.map(({ id }) => id),
                    target.checked,
                  )
                }
              />
            </span>
          )}
          {group.headers.map((header) => (
            <ColumnHead
              key={header.id}
              className={cell(header.column.columnDef.meta)}
              sortBy={header.column.columnDef.meta?.sortBy}
              sort={sort}
              resize={
                resize && {
                  move: (width) => setDragged({ column: header.column.id, width }),
                  end: (width) => {
                    setDragged(null);
                    resize(header.column.id, width);
                  },
                }
              }
            >
              {flexRender(header.column.columnDef.header, header.getContext())}
            </ColumnHead>
          ))}
        </div>
      ))}
    </div>
  );

  const box = 'flex min-h-60 flex-col rounded border border-line bg-sheet';
  if (!rows.length)
    return (
      <div className={`${box} overflow-x-auto`} style={template}>
        <div role="table" aria-label={label}>
          {head}
        </div>
        {empty}
      </div>
    );
  return (
    <div className={`${box} overflow-hidden`} style={template}>
      <div
        ref={scroller}
        role="table"
        tabIndex={0}
        onKeyDown={arrows}
        aria-label={label}
        aria-rowcount={(total ?? rows.length) + 1}
        className="min-h-0 flex-1 overflow-auto focus-visible:outline-offset-[-2px]"
      >
        {head}
        <div
          role="rowgroup"
          className="md:min-w-(--table-width)"
          style={{ height: virtual.getTotalSize(), position: 'relative' }}
        >
          {items.map((item) => {
            const row = table.getRowModel().rows[item.index]!;
            const isOpened = row.id === opened;
            const chosen = choice?.chosen.has(row.id) ?? false;
            return (
              <div
                role="row"
                key={row.id}
                aria-rowindex={item.index + 2}
                aria-selected={isOpened || chosen}
                onClick={() => {
                  setCurrent(item.index);
                  open?.(row.original);
                }}
                className={`${grid} absolute inset-x-0 h-8 items-center border-b border-hair ${open ? 'cursor-pointer' : ''} ${isOpened ? 'bg-straw-soft shadow-[inset_4px_0_0_var(--color-straw)]' : chosen ? 'bg-straw-soft' : open ? 'hover:bg-raised' : ''} ${item.index === current && !isOpened ? 'shadow-[inset_4px_0_0_var(--color-muted)]' : ''}`}
                style={{ transform: `translateY(${item.start - HEAD}px)` }}
              >
                {choice && (
                  <div role="cell" className="max-md:hidden" onClick={(event) => event.stopPropagation()}>
                    <label className="flex h-8 cursor-pointer items-center justify-center">
                      <input
                        type="checkbox"
                        aria-label={`Choose ${nameOf?.(row.original) ?? `row ${item.index + 1}`}`}
                        className="size-3.5 accent-green"
                        checked={chosen}
                        onChange={({ target, nativeEvent }) =>
                          tick(item.index, target.checked, (nativeEvent as MouseEvent).shiftKey)
                        }
                      />
                    </label>
                  </div>
                )}
                {row.getVisibleCells().map((one) => (
                  <div role="cell" key={one.id} className={cell(one.column.columnDef.meta)}>
                    {flexRender(one.column.columnDef.cell, one.getContext())}
                  </div>
                ))}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

/** The least that columns can be squeezed to before the table scrolls sideways. */
function leastWidth(widths: readonly string[]): number {
  const FLEXIBLE = 110;
  return widths.reduce((sum, width) => sum + (/^(\d+)px$/.test(width) ? Number.parseInt(width, 10) : FLEXIBLE), 0);
}
