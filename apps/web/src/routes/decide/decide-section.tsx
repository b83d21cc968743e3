import type { RouteShape } from '@haycart/api';
import { tableInWords, type DecisionTable, type RouteDefinition } from '@haycart/core';
import { Link, useNavigate } from 'react-router';
import { Button } from '../../components/button';
import { useDraft } from '../draft';

/** The decision tables of a route, each with the way to it. */
export function DecideSection({ definition, route }: { definition: RouteDefinition; route: RouteShape }) {
  const change = useDraft(({ change }) => change);
  const navigate = useNavigate();
  const tables = definition.decisions ?? [];
  const way = (name: string) => `/routes/${route.id}/decide/${encodeURIComponent(name)}`;
  const add = () => {
    const table = newTable(tables);
    change((draft) => ({ ...draft, decisions: [...(draft.decisions ?? []), table] }));
    void navigate(way(table.name));
  };
  return (
    <div className="mb-4 pl-9">
      {tables.length === 0 ? (
        <p className="mb-2 text-muted">
          A table decides by rows: who gets it, which pipeline and stage, or any other value, by what came and what is
          known.
        </p>
      ) : (
        <ul className="mb-2 divide-y divide-hair border-y border-hair">
          {tables.map((table, index) => (
            <li key={table.name} className="flex items-center gap-3 py-1.5">
              <Link to={way(table.name)} className="font-semibold hover:underline">
                {table.name}
              </Link>
              <span className="min-w-0 flex-1 truncate text-muted">
                {tableInWords(table).slice(table.name.length + 2)}
              </span>
              <Button
                look="danger"
                aria-label={`Remove ${table.name}`}
                onClick={() =>
                  change(({ decisions = [], ...draft }) => {
                    const left = decisions.toSpliced(index, 1);
                    return left.length ? { ...draft, decisions: left } : draft;
                  })
                }
              >
                Remove
              </Button>
            </li>
          ))}
        </ul>
      )}
      <Button onClick={add}>{tables.length ? 'Add another table' : 'Decide by a table'}</Button>
    </div>
  );
}

/** A table that says who gets it, with a row to begin with. */
function newTable(tables: readonly DecisionTable[]): DecisionTable {
  const names = new Set(tables.map(({ name }) => name));
  let name = 'Who takes it';
  for (let nth = 2; names.has(name); nth += 1) name = `Table ${nth}`;
  return { name, inputs: [], outputs: [{ name: 'Owner', type: 'owner' }], rows: [] };
}
