import { RUN_OUTCOMES, type RouteLine } from '@haycart/api';
import { counted } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { routesQuery } from '../api/queries';
import { Button } from '../components/button';
import { count } from '../components/format';
import { PageHead, Sheet } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { Empty, Failed, Loading } from '../components/status';
import { usePageKeys } from '../components/list-keys';
import { NewRoute } from './new-route';

/** All routes, each as a sentence. */
export function Routes() {
  const routes = useQuery(routesQuery);
  const [params, setParams] = useSearchParams();
  const from = params.get('new');
  const [current, setCurrent] = useState(-1);
  const navigate = useNavigate();
  const last = (routes.data?.length ?? 0) - 1;
  usePageKeys({
    j: () => setCurrent(Math.min(last, current + 1)),
    k: () => setCurrent(Math.max(0, current - 1)),
    ...(routes.data?.[current] ? { Enter: () => void navigate(`/routes/${routes.data[current]!.id}`) } : {}),
  });
  return (
    <div className="flex h-full flex-col overflow-y-auto p-5">
      <PageHead
        title="Routes"
        aside={routes.data && `${counted(routes.data.filter(({ state }) => state === 'live').length, 'live route')}`}
      >
        <Button look="main" onClick={() => setParams({ new: '' })}>
          <Plus className="size-4" aria-hidden /> New route
        </Button>
      </PageHead>
      {routes.isPending ? (
        <Loading />
      ) : routes.isError ? (
        <Failed error={routes.error} retry={() => void routes.refetch()} />
      ) : (
        <Sheet>
          {routes.data.length === 0 && (
            <Empty title="No route yet">
              A route turns the submissions of an intake into records. Make one; nothing is written before you publish
              it.
            </Empty>
          )}
          <ul>
            {routes.data.map((route, index) => (
              <Line key={route.id} route={route} current={index === current} />
            ))}
          </ul>
        </Sheet>
      )}
      <NewRoute open={from !== null} from={from ?? ''} close={() => setParams({}, { replace: true })} />
    </div>
  );
}

function Line({ route, current }: { route: RouteLine; current: boolean }) {
  return (
    <li
      className={`grid items-center gap-x-6 gap-y-1 border-b border-hair px-4 py-3 last:border-b-0 hover:bg-raised md:grid-cols-[minmax(0,1fr)_auto_150px] ${current ? 'shadow-[inset_4px_0_0_var(--color-straw)]' : ''}`}
    >
      <Link to={`/routes/${route.id}`} className="min-w-0 hover:underline">
        <b className="block font-semibold">{route.name}</b>
        <span className="block text-muted">{route.words.sentence}</span>
      </Link>
      <span className="flex gap-3 text-small" title="Runs of the last 30 days">
        {RUN_OUTCOMES.filter((outcome) => route.runs[outcome] > 0).map((outcome) => (
          <Link
            key={outcome}
            to={`/submissions?route=${route.id}&outcome=${outcome}`}
            className="flex items-center gap-1.5 hover:underline"
          >
            <StateShape state={outcome} word /> {count(route.runs[outcome])}
          </Link>
        ))}
        {RUN_OUTCOMES.every((outcome) => route.runs[outcome] === 0) && (
          <span className="text-muted">no run in 30 days</span>
        )}
      </span>
      <span className="md:text-right">
        <RouteState route={route} />
        {route.version !== null && route.draftDiffers && (
          <span className="block text-small text-muted">draft has changes</span>
        )}
      </span>
    </li>
  );
}

/** Whether a route runs, and which version. */
export function RouteState({ route }: { route: Pick<RouteLine, 'state' | 'version'> }) {
  const word = route.version === null ? 'draft' : route.state;
  return (
    <span className="inline-flex items-center gap-1.5 rounded border border-ink px-2 text-small leading-5 font-semibold">
      <span
        aria-hidden
        className={`size-2.5 border-[1.6px] border-ink ${word === 'live' ? 'border-green bg-green' : word === 'paused' ? 'bg-straw' : ''}`}
      />
      {word}
      {route.version !== null && `, version ${route.version}`}
    </span>
  );
}
