import { Plus } from 'lucide-react';
import { useState } from 'react';
import { FilterOptions, ListFilter, type ListFilterChoice } from './list-filter';
import { Popover } from './popover';

/** What a list is narrowed to, as removable words in one line, and what else it can be narrowed to behind one button. */
export function ListFilters({ filters }: { filters: readonly ListFilterChoice[] }) {
  const [adding, setAdding] = useState(false);
  const others = filters.filter(({ value }) => !value);
  return (
    <div className="flex min-w-0 flex-wrap items-center gap-2">
      {filters
        .filter(({ value }) => value)
        .map((filter) => (
          <ListFilter key={filter.label} {...filter} />
        ))}
      {others.length > 0 && (
        <Popover
          label="Add a filter"
          open={adding}
          onOpenChange={setAdding}
          trigger={
            <button
              type="button"
              className="inline-flex h-7 items-center gap-1 rounded border border-dashed border-faint px-2 text-muted hover:border-ink hover:text-ink"
            >
              <Plus className="size-3.5" aria-hidden /> add a filter
            </button>
          }
        >
          <div className="flex flex-col gap-2">
            {others.map(({ label, any, options, choose }) => (
              <label key={label} className="grid grid-cols-[76px_minmax(0,1fr)] items-center gap-2">
                <span className="text-muted">{label}</span>
                <select
                  className="h-8 w-full cursor-pointer truncate rounded border-[1.5px] border-line bg-sheet px-2"
                  value=""
                  onChange={({ target }) => {
                    setAdding(false);
                    choose(target.value);
                  }}
                >
                  <FilterOptions any={any} options={options} />
                </select>
              </label>
            ))}
          </div>
        </Popover>
      )}
    </div>
  );
}
