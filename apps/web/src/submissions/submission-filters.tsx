import { useQuery } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { intakeLinesQuery, routesQuery } from '../api/queries';
import { PERIODS } from './period';
import type { SubmissionList } from './submission-list-state';

/** What the list is narrowed to, as words in one line; each can be chosen and taken away. */
export function SubmissionFilters({ list: { filter, period, narrow } }: { list: SubmissionList }) {
  const intakes = useQuery(intakeLinesQuery);
  const routes = useQuery(routesQuery);
  return (
    <>
      <Filter
        label="arrived"
        any="all time"
        value={period === 'all' ? '' : period}
        options={Object.entries(PERIODS).filter(([key]) => key !== 'all')}
        choose={(value) => narrow('period', value)}
      />
      <Filter
        label="intake"
        any="any"
        value={filter.intake ?? ''}
        options={(intakes.data ?? []).map(({ key, name }) => [key, name])}
        choose={(value) => narrow('intake', value)}
      />
      <Filter
        label="route"
        any="any"
        value={filter.route ?? ''}
        options={(routes.data ?? []).map(({ id, name }) => [id, name])}
        choose={(value) => narrow('route', value)}
      />
    </>
  );
}

function Filter({
  label,
  any,
  value,
  options,
  choose,
}: {
  label: string;
  any: string;
  value: string;
  options: [string, string][];
  choose: (value: string | null) => void;
}) {
  return (
    <span
      className={`inline-flex h-8 items-center rounded border ${value ? 'border-ink bg-straw-soft' : 'border-line bg-sheet'}`}
    >
      <label className="flex min-w-0 flex-1 items-center gap-1 pl-2">
        <span className="text-muted">{label}</span>
        <select
          value={value}
          onChange={({ target }) => choose(target.value || null)}
          className="min-w-0 flex-1 cursor-pointer truncate bg-transparent pr-1 font-semibold sm:max-w-[170px]"
        >
          <option value="">{any}</option>
          {options.map(([key, text]) => (
            <option key={key} value={key}>
              {text}
            </option>
          ))}
        </select>
      </label>
      {value && (
        <button
          type="button"
          aria-label={`Any ${label}`}
          onClick={() => choose(null)}
          className="flex h-full items-center px-1.5 hover:bg-straw"
        >
          <X className="size-3.5" aria-hidden />
        </button>
      )}
    </span>
  );
}
