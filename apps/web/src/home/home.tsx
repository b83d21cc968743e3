import type { HomeShape } from '@haycart/api';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, type ReactNode } from 'react';
import { Link } from 'react-router';
import { decisionsQuery, homeQuery } from '../api/queries';
import { counted } from '@haycart/core';
import { aboutDecision, DECISION_TITLES, isFailure } from '../components/decision-line';
import { count, seconds } from '../components/format';
import { Sheet } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { Empty, Failed, Loading } from '../components/status';
import { Time } from '../components/time';

const FlowChart = lazy(() => import('./flow-chart').then(({ FlowChart }) => ({ default: FlowChart })));

const SHOWN_DECISIONS = 3;

/** Is everything all right? The last day in a sentence, as a picture, and what needs somebody. */
export function Home() {
  const home = useQuery(homeQuery);
  const decisions = useQuery(decisionsQuery);
  if (home.isPending || decisions.isPending) return <Loading />;
  if (home.isError) return <Failed error={home.error} retry={() => void home.refetch()} />;
  const day = home.data;
  return (
    <div className="h-full overflow-y-auto p-5">
      <div className="grid min-h-full gap-5 lg:grid-cols-[minmax(0,1fr)_372px]">
        <div className="flex min-w-0 flex-col gap-3">
          <DayInWords day={day} />
          <Sheet className="flex min-h-[340px] flex-1 flex-col p-3.5">
            <h2 className="text-base">Where they went</h2>
            {day.flows.length ? (
              <Suspense fallback={<div className="flex-1" />}>
                <FlowChart flows={day.flows} />
              </Suspense>
            ) : (
              <Empty title="Nothing was routed in the last day">
                Give a form’s link to somebody, or{' '}
                <Link className="text-slate underline" to="/intakes">
                  connect an endpoint
                </Link>{' '}
                and post to it.
              </Empty>
            )}
          </Sheet>
          <Sheet className="flex flex-wrap gap-x-10 gap-y-3 px-3.5 py-3">
            <Figure value={day.median === null ? '–' : seconds(day.median)}>arrival to written, half of them</Figure>
            <Figure value={day.p95 === null ? '–' : seconds(day.p95)}>95 of 100</Figure>
            <Figure value={count(day.waiting)}>waiting to be routed</Figure>
            <Figure value={count(day.unrouted)}>arrived where no route takes them</Figure>
          </Sheet>
        </div>
        <Aside day={day} />
      </div>
    </div>
  );
}

function DayInWords({ day }: { day: HomeShape }) {
  const mark = 'px-1 py-0.5 border-b-[3px]';
  const parts: ReactNode[] = [];
  if (day.written) parts.push(<span key="written">{count(day.written)} became records</span>);
  if (day.held)
    parts.push(
      <Link key="held" to="/submissions?outcome=held" className={`${mark} border-straw bg-straw-soft`}>
        {count(day.held)} {day.held === 1 ? 'waits' : 'wait'}
      </Link>,
    );
  if (day.skipped) parts.push(<span key="skipped">{count(day.skipped)} were left out with a reason</span>);
  if (day.takenBack)
    parts.push(
      <Link key="taken-back" to="/submissions?outcome=taken-back" className="underline decoration-1">
        {count(day.takenBack)} {day.takenBack === 1 ? 'was' : 'were'} taken back
      </Link>,
    );
  if (day.failed)
    parts.push(
      <Link key="failed" to="/submissions?outcome=failed" className={`${mark} border-brick bg-brick-soft`}>
        {count(day.failed)} failed
      </Link>,
    );
  if (day.waiting) parts.push(<span key="waiting">{count(day.waiting)} wait to be routed</span>);
  return (
    <h1 className="max-w-[30ch] text-[28px] leading-[38px] sm:max-w-none">
      {counted(day.arrived, 'submission')} came in since yesterday at this time{parts.length ? '. ' : '.'}
      {parts.map((part, index) => (
        <span key={index}>
          {index > 0 && (index === parts.length - 1 ? ' and ' : ', ')}
          {part}
        </span>
      ))}
      {parts.length > 0 && '.'}
    </h1>
  );
}

function Figure({ value, children }: { value: string; children: ReactNode }) {
  return (
    <div>
      <b className="block font-heading text-xl leading-6 font-semibold">{value}</b>
      <span className="text-small text-muted">{children}</span>
    </div>
  );
}

function Aside({ day }: { day: HomeShape }) {
  return (
    <Sheet className="flex flex-col gap-5 p-4">
      <ToDecide />
      <Group title="Broken this week">
        {day.failures.map((failure) => (
          <Entry
            key={failure.run}
            to={`/submissions?outcome=failed&open=${failure.submission}`}
            title={`${failure.route}, ${counted(failure.count, 'run')}`}
            at={failure.at}
            state="failed"
          >
            {failure.reason}
          </Entry>
        ))}
        {!day.failures.length && <p className="text-muted">Nothing. Every run ended with a record or a reason.</p>}
      </Group>
      <Group title="Gone quiet">
        {day.quiet.map(({ key, name, lastAt, usualPerDay }) => (
          <Entry key={key} to={`/intakes/${key}`} title={name} at={lastAt}>
            Usually {usualPerDay < 1 ? 'one every few days' : `${Math.round(usualPerDay)} a day`}.
          </Entry>
        ))}
        {!day.quiet.length && <p className="text-muted">No intake: all get what they usually get.</p>}
      </Group>
      <Group title="Changed lately">
        {day.changed.map(({ route, id, version, by, note, at }) => (
          <Entry key={`${id} ${version}`} to={`/routes/${id}`} title={`${route}, version ${version}`} at={at}>
            {by}
            {note ? `: ${note}` : ''}
          </Entry>
        ))}
        {!day.changed.length && <p className="text-muted">No route was published yet.</p>}
      </Group>
    </Sheet>
  );
}

/** The first of what waits for a person. */
function ToDecide() {
  const lines = useQuery(decisionsQuery).data ?? [];
  if (!lines.length) return null;
  return (
    <Group title="To decide">
      {lines.slice(0, SHOWN_DECISIONS).map((line) => (
        <Entry
          key={line.id}
          to={`/decide/${line.id}`}
          title={DECISION_TITLES[line.kind]}
          at={line.at}
          state={isFailure(line) ? 'failed' : 'held'}
        >
          {aboutDecision(line)}
        </Entry>
      ))}
      {lines.length > SHOWN_DECISIONS && (
        <Link to="/decide" className="mt-1 block text-slate underline">
          and {lines.length - SHOWN_DECISIONS} more
        </Link>
      )}
    </Group>
  );
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h2 className="mb-1 text-base">{title}</h2>
      {children}
    </section>
  );
}

function Entry({
  to,
  title,
  at,
  state,
  children,
}: {
  to: string;
  title: string;
  at: string;
  state?: 'failed' | 'held';
  children: ReactNode;
}) {
  return (
    <Link to={to} className="block border-b border-hair py-2 hover:bg-raised">
      <span className="flex items-baseline gap-2">
        {state && <StateShape state={state} />}
        <b className="min-w-0 flex-1 truncate font-semibold">{title}</b>
        <Time at={at} className="flex-none text-muted" />
      </span>
      <span className="block text-small text-muted">{children}</span>
    </Link>
  );
}
