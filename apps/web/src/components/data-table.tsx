import { flexRender, getCoreRowModel, useReactTable, type ColumnDef } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { usePageKeys } from './list-keys';

declare module '@tanstack/react-table' {
  // eslint-disable-next-line @typescript-eslint/no-unused-vars -- the library's own type parameters
  interface ColumnMeta<TData, TValue> {
    /** A share of the width, as CSS grid takes it: `120px`, `minmax(0,2fr)`. */
    width: string;
    /** Right-aligned, for numbers. */
    numeric?: boolean;
    /** Left out on narrow screens. */
    wide?: boolean;
  }
}

const ROW = 32;
/** The head and the line beneath it. */
const HEAD = 33;
/** How many rows before the end the next page is asked for. */
const AHEAD = 30;

/** The one table: virtual, with j / k / Enter, and further pages read as one scrolls. Rows are 32 px. */
export function DataTable<Row extends { id: string }>({
  columns,
  rows,
  label,
  open,
  opened,
  more,
  total,
  empty,
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
  usePageKeys({
    j: () => step(1),
    k: () => step(-1),
    ...(current >= 0 &&
    rows[current] &&
    document.activeElement?.tagName !== 'BUTTON' &&
    document.activeElement?.tagName !== 'A'
      ? { Enter: () => open?.(rows[current]!) }
      : {}),
  });

  const shown = table.getAllLeafColumns();
  const template = {
    '--columns': shown.map(({ columnDef }) => columnDef.meta?.width ?? '1fr').join(' '),
    '--columns-narrow': shown
      .filter(({ columnDef }) => !columnDef.meta?.wide)
      .map(({ columnDef }) => columnDef.meta?.width ?? '1fr')
      .join(' '),
  } as React.CSSProperties;
  const grid = 'grid grid-cols-(--columns-narrow) md:grid-cols-(--columns)';
  const cell = (meta: { numeric?: boolean; wide?: boolean } | undefined) =>
    `min-w-0 truncate px-2.5 ${meta?.numeric ? 'text-right' : ''} ${meta?.wide ? 'max-md:hidden' : ''}`;

  // The head stands inside what scrolls, so that its columns are as wide as those beneath, scroll bar or not.
  const head = (
    <div role="rowgroup" className="sticky top-0 z-10 flex-none border-b border-line bg-sheet">
      {table.getHeaderGroups().map((group) => (
        <div role="row" key={group.id} className={`${grid} h-8 items-center text-label font-semibold text-muted`}>
          {group.headers.map((header) => (
            <div role="columnheader" key={header.id} className={cell(header.column.columnDef.meta)}>
              {flexRender(header.column.columnDef.header, header.getContext())}
            </div>
          ))}
        </div>
      ))}
    </div>
  );

  const box = 'flex min-h-0 flex-col rounded border border-line bg-sheet';
  if (!rows.length)
    return (
      <div className={box} style={template}>
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
        aria-label={label}
        aria-rowcount={total ?? rows.length}
        className="min-h-0 flex-1 overflow-y-auto focus-visible:outline-offset-[-2px]"
      >
        {head}
        <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {items.map((item) => {
            const row = table.getRowModel().rows[item.index]!;
            const isOpened = row.id === opened;
            return (
              <div
                role="row"
                key={row.id}
                aria-rowindex={item.index + 1}
                aria-selected={isOpened}
                onClick={() => {
                  setCurrent(item.index);
                  open?.(row.original);
                }}
                className={`${grid} absolute inset-x-0 h-8 items-center border-b border-hair ${open ? 'cursor-pointer hover:bg-raised' : ''} ${isOpened ? 'bg-straw-soft shadow-[inset_4px_0_0_var(--color-straw)]' : ''} ${item.index === current && !isOpened ? 'shadow-[inset_4px_0_0_var(--color-line)]' : ''}`}
                style={{ transform: `translateY(${item.start - HEAD}px)` }}
              >
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
