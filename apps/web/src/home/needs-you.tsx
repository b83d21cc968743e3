import type { DecisionList, HomeShape } from '@haycart/api';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { buttonLook } from '../components/button';
import { count } from '../components/format';
import { Sheet } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { Failed } from '../components/status';
import { Time } from '../components/time';

/** How many are shown. */
export const NEEDS_YOU = 4;

/** What needs somebody, each thing once; then what has gone quiet, and what was published. */
export function NeedsYou({
  waiting: { items, total } = { items: [], total: 0 },
  error,
  retry,
  quiet,
  changed,
}: {
  waiting: DecisionList | undefined;
  /** Why what waits could not be read: then nobody is told that nothing does. */
  error: unknown;
  retry: () => void;
  quiet: HomeShape['quiet'];
  changed: HomeShape['changed'];
}) {
  return (
    <Sheet className="flex flex-col gap-5 p-4">
      <section>
        <h2 className="mb-1 text-base">Needs you</h2>
        {items.map((line) => (
          <Entry
            key={line.id}
            title={line.title}
            at={line.at}
            state={line.isFailure ? 'failed' : 'held'}
            action={
              <Link to={`/decide/${line.id}`} className={`${buttonLook('quiet')} !h-7`}>
                Decide
              </Link>
            }
          >
            {line.about}
          </Entry>
        ))}
        {total > items.length && (
          <Link to="/decide" className="mt-2 block text-slate underline">
            {count(total - items.length)} more to decide
          </Link>
        )}
        {error !== null && !items.length && <Failed error={error} retry={retry} />}
        {error === null && !items.length && (
          <p className="text-muted">Nothing: all that was to be decided is decided.</p>
        )}
      </section>
      {quiet.length > 0 && (
        <section>
          <h2 className="mb-1 text-base">Inactive</h2>
          {quiet.map(({ key, name, lastAt, usualPerDay }) => (
            <Entry key={key} title={<Link to={`/intakes/${key}`}>{name}</Link>} at={lastAt}>
              Usually {usualPerDay < 1 ? 'one every few days' : `${Math.round(usualPerDay)} a day`}.
            </Entry>
          ))}
        </section>
      )}
      {changed.length > 0 && (
        <section>
          <h2 className="mb-1 text-base">Published</h2>
          {changed.map(({ route, id, version, by, note, at }) => (
            <Entry
              key={`${id} ${version}`}
              title={
                <Link to={`/routes/${id}`}>
                  {route}, version {version}
                </Link>
              }
              at={at}
            >
              {by}
              {note ? `: ${note}` : ''}
            </Entry>
          ))}
        </section>
      )}
    </Sheet>
  );
}

function Entry({
  title,
  at,
  state,
  action,
  children,
}: {
  title: ReactNode;
  at: string;
  state?: 'failed' | 'held';
  action?: ReactNode;
  children: ReactNode;
}) {
  return (
    <div className="grid grid-cols-[11px_minmax(0,1fr)] gap-x-3 border-b border-hair py-2.5 last:border-b-0">
      <span className="pt-1">{state && <StateShape state={state} />}</span>
      <div className="min-w-0">
        <p className="flex items-baseline gap-2">
          <b className="min-w-0 flex-1 truncate font-semibold">{title}</b>
          <Time at={at} className="flex-none text-small text-muted" />
        </p>
        <p className="text-small text-muted [overflow-wrap:anywhere]">{children}</p>
        {action && <p className="mt-1.5">{action}</p>}
      </div>
    </div>
  );
}
