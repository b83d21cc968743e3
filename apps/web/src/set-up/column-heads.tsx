/** One column's heading. What is not `narrow` is left out on small screens, as its cells are. */
export interface ColumnHead {
  name: string;
  look?: string;
  narrow?: boolean;
  /** Said to those who cannot see, not shown. */
  silent?: boolean;
}

/** The headings of a table that is edited in its place. */
export function ColumnHeads({ grid, columns }: { grid: string; columns: readonly ColumnHead[] }) {
  return (
    <div role="row" className={`${grid} h-8 border-b border-line text-label font-semibold text-muted`}>
      {columns.map(({ name, look = '', narrow = false, silent = false }) => (
        <span role="columnheader" key={name} className={`${look} ${narrow ? '' : 'max-lg:hidden'}`}>
          {silent ? <span className="sr-only">{name}</span> : name}
        </span>
      ))}
    </div>
  );
}
