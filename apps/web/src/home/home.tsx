import type { HomeShape } from '@haycart/api';
import { counted } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, type ReactNode } from 'react';
import { Link } from 'react-router';
import { balanceQuery, decisionsQuery, homeQuery } from '../api/queries';
import { balanceWords } from '../components/balance-sign';
import { count, timeOfDay } from '../components/format';
import { Sheet } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { Failed, Loading } from '../components/status';
import { DayFigures } from './day-figures';
import { IntakeTable } from './intake-table';
import { NEEDS_YOU, NeedsYou } from './needs-you';

const FlowChart = lazy(() => import('./flow-chart').then(({ FlowChart }) => ({ default: FlowChart })));

/** Is everything all right, and better or worse than usual? The last 24 hours beside those a week ago, and what needs somebody. */
export function Home() {
  const home = useQuery(homeQuery);
  const decisions = useQuery(decisionsQuery(NEEDS_YOU));
  const balance = useQuery(balanceQuery(1)).data;
  if (home.isPending || decisions.isPending) return <Loading />;
  if (home.isError) return <Failed error={home.error} retry={() => void home.refetch()} />;
  const day = home.data;
  return (
    <div className="h-full overflow-y-auto p-5">
      <div className="grid min-h-full gap-5 lg:grid-cols-[minmax(0,1fr)_356px]">
        <div className="flex min-w-0 flex-col gap-3.5">
          <DayInWords day={day} />
          <DayFigures day={day} />
          <IntakeTable intakes={day.intakes} />
          {branches(day.flows) && (
            <Sheet className="flex min-h-[300px] flex-col p-3.5">
              <h2 className="text-base">Where they went</h2>
              <Suspense fallback={<div className="flex-1" />}>
                <FlowChart flows={day.flows} />
              </Suspense>
            </Sheet>
          )}
          <Sheet className="grid sm:grid-cols-3">
            <Card title="Sources">
              {day.sources.length ? (
                <>
                  In the last 24 hours <InOrder sources={day.sources} />
                  {day.weekSources.length > 0 && (
                    <>
                      {'; in seven days '}
                      <InOrder sources={day.weekSources} />
                    </>
                  )}
                  .{' '}
                  <Link to="/sources" className="text-slate underline">
                    What they brought
                  </Link>
                </>
              ) : (
                'Nothing arrived in the last 24 hours.'
              )}
            </Card>
            <Card title="Balance of today">
              {balance && (
                <Link to="/balance" className="inline-flex items-center gap-2 hover:underline">
                  <StateShape state={balance.off ? 'failed' : 'written'} />
                  {balanceWords(balance)}
                </Link>
              )}
            </Card>
            <Card title="Not routed">
              <Link to="/submissions?outcome=waiting" className="hover:underline">
                <b className="font-semibold">{count(day.waiting)}</b> waiting
              </Link>
              ,{' '}
              <Link to="/submissions?outcome=unrouted" className="hover:underline">
                <b className="font-semibold">{count(day.unrouted)}</b> where no route takes from the intake
              </Link>
            </Card>
          </Sheet>
        </div>
        <NeedsYou
          waiting={decisions.data}
          error={decisions.error}
          retry={() => void decisions.refetch()}
          quiet={day.quiet}
          changed={day.changed}
        />
      </div>
    </div>
  );
}

/** Whether what one intake brought went into several pipelines: then a picture tells more than the table. */
function branches(flows: HomeShape['flows']): boolean {
  const ends = new Map<string, Set<string>>();
  for (const { from, to, outcome } of flows)
    if (outcome === 'written') ends.set(from, (ends.get(from) ?? new Set()).add(to));
  return [...ends.values()].some(({ size }) => size > 1);
}

function DayInWords({ day }: { day: HomeShape }) {
  const mark = 'border-b-[3px] px-0.5';
  const more = day.arrived - day.weekAgo.arrived;
  const parts: ReactNode[] = [];
  if (day.written) parts.push(<span key="written">{count(day.written)} became records</span>);
  if (day.held)
    parts.push(
      <Link key="held" to="/submissions?outcome=held" className={`${mark} border-straw`}>
        {count(day.held)} {day.held === 1 ? 'waits' : 'wait'} for you
      </Link>,
    );
  if (day.failed)
    parts.push(
      <Link key="failed" to="/submissions?outcome=failed" className={`${mark} border-brick`}>
        {count(day.failed)} failed
      </Link>,
    );
  if (day.skipped)
    parts.push(
      <Link key="skipped" to="/submissions?outcome=skipped" className="hover:underline">
        {count(day.skipped)} {day.skipped === 1 ? 'was' : 'were'} skipped
      </Link>,
    );
  if (day.takenBack)
    parts.push(
      <Link key="taken-back" to="/submissions?outcome=taken-back" className="underline decoration-1">
        {count(day.takenBack)} {day.takenBack === 1 ? 'was' : 'were'} taken back
      </Link>,
    );
  if (day.waiting) parts.push(<span key="waiting">{count(day.waiting)} to be routed</span>);
  return (
    <h1 className="text-[26px] leading-[34px]">
      {counted(day.arrived, 'submission')} since yesterday {timeOfDay(new Date())},{' '}
      {more === 0 ? 'as many as' : `${count(Math.abs(more))} ${more > 0 ? 'more' : 'fewer'} than`} a week ago.{' '}
      <span className="sm:block">
        {parts.map((part, index) => (
          <span key={index}>
            {index > 0 && ', '}
            {part}
          </span>
        ))}
        {parts.length > 0 && '.'}
      </span>
    </h1>
  );
}

/** Sources with how often, as a sentence lists them. */
function InOrder({ sources }: { sources: HomeShape['sources'] }) {
  return sources.map(({ source, count: times }, index) => (
    <span key={source}>
      {index > 0 && ', '}
      {source} <b className="font-semibold">{count(times)}</b>
    </span>
  ));
}

function Card({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="border-line px-3.5 py-3 max-sm:border-t max-sm:first:border-t-0 sm:border-l sm:first:border-l-0">
      <h2 className="mb-0.5 text-base">{title}</h2>
      <p className="text-small">{children}</p>
    </section>
  );
}
