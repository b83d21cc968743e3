import { counted } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { Plus, Search } from 'lucide-react';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { routesQuery } from '../api/queries';
import { Button } from '../components/button';
import { usePageKeys } from '../components/list-keys';
import { ListFilter } from '../components/list-filter';
import { PageHead, Sheet } from '../components/sheet';
import { Empty, Failed, Loading } from '../components/status';
import { useAddress } from '../state/use-address';
import { NewRoute } from './new-route';
import { byIntake, ROUTE_SORTS, shownRoutes, type RouteSort } from './route-list';
import { RouteTable } from './route-table';

/** Stands in the address while a new route is made that takes from no intake yet. */
const ANY = '-';

/** All routes: how each fares, searched, sorted, and by intake where one likes. */
export function Routes() {
  const routes = useQuery(routesQuery);
  const [params, set] = useAddress();
  const [current, setCurrent] = useState(-1);
  const navigate = useNavigate();
  const search = useRef<HTMLInputElement>(null);
  const from = params.get('new');
  const asked = params.get('sort') ?? '';
  const down = asked.startsWith('-');
  const field = asked.replace('-', '');
  const sort = ROUTE_SORTS.includes(field as RouteSort) ? (field as RouteSort) : null;
  const grouped = params.get('group') === 'intake';
  const found = shownRoutes(routes.data ?? [], params.get('q') ?? '', sort, down);
  const groups = grouped ? byIntake(found) : [{ name: '', routes: found }];
  const shown = groups.flatMap((group) => group.routes);
  usePageKeys({
    j: () => setCurrent(Math.min(shown.length - 1, current + 1)),
    k: () => setCurrent(Math.max(0, current - 1)),
    '/': () => search.current?.focus(),
    ...(shown[current] ? { Enter: () => void navigate(`/routes/${shown[current]!.id}`) } : {}),
  });
  return (
    <div className="flex h-full flex-col overflow-y-auto p-5">
      <PageHead
        title="Routes"
        aside={
          routes.data &&
          `${counted(routes.data.filter(({ state }) => state === 'live').length, 'live route')}, with the runs of 30 days`
        }
      >
        <Button look="main" onClick={() => set('new', ANY)}>
          <Plus className="size-4" aria-hidden /> New route
        </Button>
      </PageHead>
      {routes.isPending ? (
        <Loading />
      ) : routes.isError ? (
        <Failed error={routes.error} retry={() => void routes.refetch()} />
      ) : routes.data.length === 0 ? (
        <Sheet>
          <Empty title="No route yet">
            A route turns the submissions of an intake into records. Make one; nothing is written before you publish it.
          </Empty>
        </Sheet>
      ) : (
        <div className="flex flex-col gap-3">
          <div className="flex flex-wrap gap-2">
            <label className="flex h-8 min-w-0 items-center gap-2 rounded border border-faint bg-raised px-2.5 max-sm:w-full sm:w-[320px]">
              <Search className="size-4 flex-none text-muted" aria-hidden />
              <span className="sr-only">Find a route</span>
              <input
                ref={search}
                type="search"
                value={params.get('q') ?? ''}
                onChange={({ target }) => set('q', target.value)}
                placeholder="Name, intake or record"
                className="min-w-0 flex-1 bg-transparent outline-none placeholder:text-faint"
              />
            </label>
            <ListFilter
              label="group by"
              any="nothing"
              value={grouped ? 'intake' : ''}
              options={[['intake', 'intake']]}
              choose={(value) => set('group', value)}
            />
          </div>
          {shown.length === 0 ? (
            <Sheet>
              <Empty title="No route matches">Search for fewer words, or for another part of a name.</Empty>
            </Sheet>
          ) : (
            groups.map((group) => (
              <RouteTable
                key={group.name}
                title={group.name}
                routes={group.routes}
                current={shown[current]}
                sort={{ field, down, choose: (next) => set('sort', field === next && !down ? `-${next}` : next) }}
              />
            ))
          )}
        </div>
      )}
      <NewRoute open={from !== null} from={from === null || from === ANY ? '' : from} close={() => set('new', null)} />
    </div>
  );
}
