import type { RouteLine } from '@haycart/api';
import { useQueryClient } from '@tanstack/react-query';
import { ArrowDown, ArrowUp } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { count, percent, shortDay } from '../components/format';
import { Sheet } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import type { TableSort } from '../components/table-head';
import { Time } from '../components/time';
import { PauseOrResume } from './pause-or-resume';
import { failureRate } from './route-list';
import { RouteMark } from './route-mark';

const OUTCOMES = ['written', 'held', 'skipped', 'failed'] as const;
const WORDS = { written: 'Written', held: 'Held', skipped: 'Skipped', failed: 'Failed' } as const;
const CELL = 'px-2 py-2 align-middle';
const NUMBER = `${CELL} tabular text-right`;
/** Left out where there is no room. */
const WIDE = 'max-lg:hidden';
const WIDER = 'max-xl:hidden';

/** Routes as a table: what each does in a sentence, and how its runs of the last 30 days ended. */
export function RouteTable({
  title,
  routes,
  current,
  sort,
}: {
  /** Of its group; `''` where there are none. */
  title: string;
  routes: readonly RouteLine[];
  current: RouteLine | undefined;
  sort: TableSort;
}) {
  const client = useQueryClient();
  return (
    <Sheet>
      {title && <h2 className="px-3.5 pt-3 text-base">{title}</h2>}
      <table className="w-full table-fixed border-collapse">
        <caption className="sr-only">{title || 'Routes'}, with the runs of the last 30 days</caption>
        <thead>
          <tr className="border-b border-line text-label text-muted">
            <Head sort={sort} by="name" className="w-auto pl-3.5 text-left">
              Route
            </Head>
            <Head sort={sort} by="lastRunOn" className={`w-[76px] text-right ${WIDE}`}>
              Last run
            </Head>
            {OUTCOMES.map((outcome) => (
              <Head
                key={outcome}
                sort={sort}
                by={outcome}
                className={`w-[88px] text-right ${outcome === 'failed' ? 'max-sm:w-[52px]' : 'max-md:hidden'}`}
              >
                <StateShape state={outcome} />
                <span className="max-sm:sr-only">{WORDS[outcome]}</span>
              </Head>
            ))}
            <Head sort={sort} by="rate" className={`w-[84px] text-right ${WIDE}`}>
              Failure rate
            </Head>
            <Head sort={sort} by="saved" className={`w-[176px] pl-6 text-left ${WIDER}`}>
              Saved
            </Head>
            <th scope="col" className="w-[104px]">
              <span className="sr-only">Pause or resume</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {routes.map((route) => (
            <tr
              key={route.id}
              className={`border-b border-hair last:border-b-0 hover:bg-raised ${route === current ? 'shadow-[inset_4px_0_0_var(--color-straw)]' : ''}`}
            >
              <th scope="row" className={`${CELL} pl-3.5 text-left font-normal`}>
                <Link to={`/routes/${route.id}`} className="block min-w-0 hover:underline">
                  <span className="flex min-w-0 items-center gap-2">
                    <RouteMark route={route} />
                    <b className="truncate font-semibold">{route.name}</b>
                    <span className="flex-none text-small text-muted">
                      {route.version === null ? 'draft' : route.state}
                      {route.version !== null && <span className="max-sm:hidden">, version {route.version}</span>}
                    </span>
                  </span>
                  <span className="line-clamp-2 pl-[18px] text-muted" title={route.words.sentence}>
                    {route.words.sentence}
                  </span>
                </Link>
              </th>
              <td className={`${NUMBER} text-muted ${WIDE}`}>
                {route.lastRunOn === null ? '–' : shortDay(route.lastRunOn)}
              </td>
              {OUTCOMES.map((outcome) => (
                <td key={outcome} className={`${NUMBER} ${outcome === 'failed' ? '' : 'max-md:hidden'}`}>
                  {route.runs[outcome] ? (
                    <Link to={`/submissions?route=${route.id}&outcome=${outcome}`} className="hover:underline">
                      {count(route.runs[outcome])}
                    </Link>
                  ) : (
                    <span className="text-muted">0</span>
                  )}
                </td>
              ))}
              <td className={`${NUMBER} ${WIDE}`}>{rateInWords(failureRate(route))}</td>
              <td className={`${CELL} pl-6 text-small ${WIDER}`}>
                {route.version !== null && (
                  <span className="block truncate">
                    {route.draftDiffers ? 'Unpublished changes' : 'No unpublished changes'}
                  </span>
                )}
                <span className="block truncate text-muted">
                  {route.draftSavedBy === null ? 'made ' : `${route.draftSavedBy}, `}
                  <Time at={route.draftSavedAt} />
                </span>
              </td>
              <td className={`${CELL} pr-3.5 text-right`}>
                <PauseOrResume
                  route={route}
                  name={route.name}
                  changed={() => void client.invalidateQueries({ queryKey: ['routes'] })}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Sheet>
  );
}

function rateInWords(rate: number | null): string {
  if (rate === null) return '–';
  return rate > 0 && rate < 0.01 ? '< 1 %' : percent(rate);
}

function Head({
  sort,
  by,
  className,
  children,
}: {
  sort: TableSort;
  by: string;
  className: string;
  children: ReactNode;
}) {
  const sorted = sort.field === by;
  const Arrow = sort.down ? ArrowDown : ArrowUp;
  return (
    <th
      scope="col"
      aria-sort={sorted ? (sort.down ? 'descending' : 'ascending') : undefined}
      className={`px-2 py-2 font-semibold ${className}`}
    >
      <button
        type="button"
        onClick={() => sort.choose(by)}
        className={`inline-flex max-w-full items-center gap-1 hover:text-ink ${sorted ? 'text-ink' : ''}`}
      >
        {children}
        {sorted && <Arrow className="size-3 flex-none" aria-hidden />}
      </button>
    </th>
  );
}
