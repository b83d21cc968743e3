import { ArrowDown, ArrowUp } from 'lucide-react';
import type { PointerEvent, ReactNode } from 'react';

/** By what a list is sorted, and how one chooses otherwise. */
export interface TableSort {
  field: string;
  down: boolean;
  choose: (field: string) => void;
}

const LEAST = 56;

/** The head of a column: chosen to sort by it, its right edge dragged to size it. */
export function ColumnHead({
  className,
  sortBy,
  sort,
  resize,
  children,
}: {
  className: string;
  sortBy: string | undefined;
  sort: TableSort | undefined;
  resize: { move: (width: number) => void; end: (width: number) => void } | undefined;
  children: ReactNode;
}) {
  const sorted = sort && sortBy !== undefined && sort.field === sortBy;
  const Arrow = sort?.down ? ArrowDown : ArrowUp;
  return (
    <div
      role="columnheader"
      aria-sort={sorted ? (sort.down ? 'descending' : 'ascending') : undefined}
      className={`relative ${className}`}
    >
      {sort && sortBy !== undefined ? (
        <button
          type="button"
          onClick={() => sort.choose(sortBy)}
          className={`inline-flex max-w-full items-center gap-1 hover:text-ink ${sorted ? 'text-ink' : ''}`}
        >
          <span className="truncate">{children}</span>
          {sorted && <Arrow className="size-3 flex-none" aria-hidden />}
        </button>
      ) : (
        children
      )}
      {resize && <Edge {...resize} />}
    </div>
  );
}

function Edge({ move, end }: { move: (width: number) => void; end: (width: number) => void }) {
  const start = (event: PointerEvent<HTMLSpanElement>) => {
    event.preventDefault();
    event.stopPropagation();
    const edge = event.currentTarget;
    edge.setPointerCapture(event.pointerId);
    const from = event.clientX - edge.parentElement!.getBoundingClientRect().width;
    const width = (x: number) => Math.max(LEAST, Math.round(x - from));
    edge.onpointermove = ({ clientX }) => move(width(clientX));
    edge.onpointerup = ({ clientX }) => {
      edge.onpointermove = edge.onpointerup = null;
      end(width(clientX));
    };
  };
  return (
    <span
      aria-hidden
      onPointerDown={start}
      className="absolute inset-y-0 right-0 w-2 cursor-col-resize touch-none border-r border-transparent hover:border-muted max-md:hidden"
    />
  );
}
