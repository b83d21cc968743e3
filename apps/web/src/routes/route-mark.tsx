import type { RouteLine } from '@haycart/api';

/** Whether a route runs, and which version. */
export function RouteState({ route }: { route: Pick<RouteLine, 'state' | 'version'> }) {
  const word = route.version === null ? 'draft' : route.state;
  return (
    <span className="inline-flex items-center gap-1.5 rounded border border-ink px-2 text-small leading-5 font-semibold">
      <RouteMark route={route} />
      {word}
      {route.version !== null && `, version ${route.version}`}
    </span>
  );
}

/** The state of a route as a shape; the word stands beside it. */
export function RouteMark({ route }: { route: Pick<RouteLine, 'state' | 'version'> }) {
  const look = route.version === null ? '' : route.state === 'live' ? 'border-green bg-green' : 'bg-straw';
  return <span aria-hidden className={`size-2.5 flex-none border-[1.6px] border-ink ${look}`} />;
}
