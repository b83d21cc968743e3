import { RUN_OUTCOMES } from '@haycart/api';
import { useQuery } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { useSearchParams } from 'react-router';
import { intakeLinesQuery, routesQuery } from '../api/queries';
import { STATE_WORDS } from '../components/state-shape';
import { PERIODS } from './period';

/** What the list is narrowed to, as words in one line; each can be chosen and taken away, and stands in the address. */
export function SubmissionFilters() {
  const intakes = useQuery(intakeLinesQuery);
  const routes = useQuery(routesQuery);
  const outcomes = [...RUN_OUTCOMES, 'waiting', 'unrouted', 'set-aside'] as const;
  return (
    <div className="grid grid-cols-2 gap-2 sm:flex sm:flex-wrap">
      <Filter
        name="period"
        label="arrived"
        any="all time"
        options={Object.entries(PERIODS).filter(([key]) => key !== 'all')}
      />
      <Filter
        name="intake"
        label="intake"
        any="any"
        options={(intakes.data ?? []).map(({ key, name }) => [key, name])}
      />
      <Filter
        name="outcome"
        label="outcome"
        any="any"
        options={outcomes.map((outcome) => [outcome, STATE_WORDS[outcome]])}
      />
      <Filter name="route" label="route" any="any" options={(routes.data ?? []).map(({ id, name }) => [id, name])} />
    </div>
  );
}

function Filter({
  name,
  label,
  any,
  options,
}: {
  name: string;
  label: string;
  any: string;
  options: [string, string][];
}) {
  const [params, setParams] = useSearchParams();
  const value = params.get(name) ?? '';
  const choose = (next: string) =>
    setParams((before) => {
      if (next) before.set(name, next);
      else before.delete(name);
      before.delete('open');
      return before;
    });
  return (
    <span
      className={`inline-flex h-7 items-center rounded border ${value ? 'border-ink bg-straw-soft' : 'border-line bg-sheet'}`}
    >
      <label className="flex min-w-0 flex-1 items-center gap-1 pl-2">
        <span className="text-muted">{label}</span>
        <select
          value={value}
          onChange={(event) => choose(event.target.value)}
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
          onClick={() => choose('')}
          className="flex h-full items-center px-1.5 hover:bg-straw"
        >
          <X className="size-3.5" aria-hidden />
        </button>
      )}
    </span>
  );
}
