import { RUN_OUTCOMES, type RunOutcome, type SubmissionShape } from '@haycart/api';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { ColumnDef } from '@tanstack/react-table';
import { useEffect, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { outcomesQuery, submissionsQuery } from '../api/queries';
import { DataTable } from '../components/data-table';
import { count } from '../components/format';
import { usePageKeys } from '../components/list-keys';
import { Mono, PageHead } from '../components/sheet';
import { STATE_WORDS, StateShape, stateOf } from '../components/state-shape';
import { Empty, Failed, Loading } from '../components/status';
import { TakeAway, type TakeAwayFormat } from '../components/take-away';
import { Time } from '../components/time';
import { ACTED_UPON, RunManyAgain } from './run-many-again';
import { RunPanel } from './run-panel';
import { SubmissionFilters } from './submission-filters';
import { PERIODS, sinceOf, type Period } from './period';

const COLUMNS: ColumnDef<SubmissionShape>[] = [
  {
    header: 'Time',
    meta: { width: '92px' },
    cell: ({ row: { original } }) => (
      <Mono>
        <Time at={original.receivedAt} />
      </Mono>
    ),
  },
  {
    header: 'Intake',
    meta: { width: 'minmax(0,0.9fr)', wide: true },
    cell: ({ row: { original } }) => original.intake.name,
  },
  {
    header: 'Who',
    meta: { width: 'minmax(0,1.1fr)' },
    cell: ({ row: { original } }) =>
      original.who || <span className="text-muted">{original.unreadable ? 'unreadable' : 'unnamed'}</span>,
  },
  { header: 'E-mail', meta: { width: 'minmax(0,1.3fr)', wide: true }, cell: ({ row: { original } }) => original.email },
  {
    header: 'Source',
    meta: { width: 'minmax(0,0.9fr)', wide: true },
    cell: ({ row: { original } }) => original.source,
  },
  {
    header: 'Outcome',
    meta: { width: 'minmax(0,1.4fr)' },
    cell: ({ row: { original } }) => <Outcome submission={original} />,
  },
];

const FORMATS: TakeAwayFormat[] = [
  { format: 'csv', name: 'CSV', about: 'of one intake, a column for each field' },
  { format: 'xlsx', name: 'XLSX', about: 'the same, numbers as numbers' },
  { format: 'jsonl', name: 'JSON Lines', about: 'all of each submission, for scripts' },
];

/** Everything that arrived, newest first; the account of what became of one stands beside the list. */
export function Submissions() {
  const [params, setParams] = useSearchParams();
  const period = (params.get('period') ?? 'all') as Period;
  const since = useMemo(() => sinceOf(period in PERIODS ? period : 'all'), [period]);
  const filter = {
    intake: params.get('intake') ?? undefined,
    outcome: params.get('outcome') ?? undefined,
    route: params.get('route') ?? undefined,
    since,
  };
  const list = useInfiniteQuery(submissionsQuery(filter));
  const outcomes = useQuery(outcomesQuery(filter));
  const opened = params.get('open') ?? undefined;
  const open = (id: string | null) =>
    setParams(
      (before) => {
        if (id) before.set('open', id);
        else before.delete('open');
        return before;
      },
      { replace: opened !== undefined },
    );
  const narrow = (outcome: RunOutcome | null) =>
    setParams((before) => {
      if (outcome) before.set('outcome', outcome);
      else before.delete('outcome');
      return before;
    });
  usePageKeys({ Escape: () => open(null) });
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const clear = () => setChosen(new Set());
  const choose = (ids: readonly string[], add: boolean) =>
    setChosen((before) => new Set(add ? [...before, ...ids] : [...before].filter((id) => !ids.includes(id))));
  const canAct = ACTED_UPON.includes(filter.outcome ?? '');
  useEffect(() => setChosen(new Set()), [filter.outcome]);
  const rows = list.data?.pages.flatMap(({ items }) => items) ?? [];
  const total = list.data?.pages[0]?.total;
  return (
    <div className="flex h-full">
      <div className={`flex min-w-0 flex-1 flex-col p-5 ${opened ? 'max-lg:hidden' : ''}`}>
        <PageHead title="Submissions" />
        <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
          <SubmissionFilters />
        </div>
        <div className="mb-3 flex min-h-8 flex-wrap items-center gap-x-4 gap-y-2">
          {total !== undefined && (
            <span className="flex flex-wrap items-center gap-x-1 text-small text-muted">
              <span className="mr-1">{count(total)} arrived</span>
              {RUN_OUTCOMES.filter((outcome) => outcomes.data?.[outcome]).map((outcome) => (
                <OutcomeCount
                  key={outcome}
                  outcome={outcome}
                  number={outcomes.data![outcome]!}
                  chosen={filter.outcome === outcome}
                  choose={narrow}
                />
              ))}
            </span>
          )}
          <span className="ml-auto">
            <TakeAway path="/submissions" wish={filter} formats={FORMATS} />
          </span>
        </div>
        {chosen.size > 0 && <RunManyAgain chosen={chosen} rows={rows} filter={filter} total={total} clear={clear} />}
        {list.isPending ? (
          <Loading lines={16} />
        ) : list.isError ? (
          <Failed error={list.error} retry={() => void list.refetch()} />
        ) : (
          <DataTable
            label="Submissions"
            columns={COLUMNS}
            rows={rows}
            total={total}
            opened={opened}
            open={({ id }) => open(id)}
            choice={canAct ? { chosen, choose } : undefined}
            more={list.hasNextPage && !list.isFetchingNextPage ? () => void list.fetchNextPage() : undefined}
            empty={
              <Empty title="No submission is like this">
                Take away a filter, or wait: what arrives shows up by itself.
              </Empty>
            }
          />
        )}
      </div>
      {opened && <RunPanel key={opened} id={opened} close={() => open(null)} />}
    </div>
  );
}

/** How many ended so; pressed, the list shows them alone. */
function OutcomeCount({
  outcome,
  number,
  chosen,
  choose,
}: {
  outcome: RunOutcome;
  number: number;
  chosen: boolean;
  choose: (outcome: RunOutcome | null) => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={() => choose(chosen ? null : outcome)}
      className={`flex h-7 items-center gap-1.5 rounded px-1.5 hover:bg-hair ${chosen ? 'bg-straw-soft text-ink' : ''}`}
    >
      <StateShape state={outcome} />
      {count(number)} {STATE_WORDS[outcome]}
    </button>
  );
}

function Outcome({ submission }: { submission: SubmissionShape }) {
  const run = submission.runs[0];
  if (!run) {
    const state = stateOf(submission);
    return (
      <span className="flex min-w-0 items-center gap-2">
        <StateShape state={state} />
        <span className="truncate">
          {state === 'set-aside'
            ? `set aside: ${submission.suspicion?.reasons[0] ?? ''}`
            : state === 'waiting'
              ? 'waiting'
              : 'no route takes it'}
        </span>
      </span>
    );
  }
  return (
    <span className="flex items-center gap-2">
      <StateShape state={run.outcome} word />
      <span className="truncate">{run.summary}</span>
      {submission.runs.length > 1 && <span className="flex-none text-muted">+{submission.runs.length - 1}</span>}
    </span>
  );
}
