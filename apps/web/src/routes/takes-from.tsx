import type { RouteDefinition } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { intakeLinesQuery } from '../api/queries';
import { count } from '../components/format';
import { TextField } from '../components/text-field';
import { useDraft } from './draft';

/** Which intakes the route takes from, and what it is called. */
export function TakesFrom({ definition }: { definition: RouteDefinition }) {
  const intakes = useQuery(intakeLinesQuery);
  const change = useDraft(({ change }) => change);
  const toggle = (key: string, on: boolean) =>
    change((draft) => ({ ...draft, from: on ? [...draft.from, key] : draft.from.filter((other) => other !== key) }));
  return (
    <div className="grid gap-5 pl-9 sm:grid-cols-2">
      <fieldset>
        <legend className="mb-1 font-semibold">Intakes</legend>
        {intakes.data?.map(({ key, name, kind, submissions }) => (
          <label key={key} className="flex cursor-pointer items-center gap-2 py-1">
            <input
              type="checkbox"
              className="size-4 accent-green"
              checked={definition.from.includes(key)}
              onChange={(event) => toggle(key, event.target.checked)}
            />
            <span className="min-w-0 flex-1 truncate">{name}</span>
            <span className="text-small text-muted">
              {kind}, {count(submissions)}
            </span>
          </label>
        ))}
      </fieldset>
      <TextField
        label="Name of the route"
        value={definition.name}
        maxLength={200}
        onChange={(event) => change((draft) => ({ ...draft, name: event.target.value }))}
        error={definition.name.trim() ? undefined : 'Give it a name.'}
      />
    </div>
  );
}
