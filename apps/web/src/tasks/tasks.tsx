import type { TaskLine, TaskState } from '@haycart/api';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { ColumnDef } from '@tanstack/react-table';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { peopleQuery, sessionQuery, taskCountsQuery, tasksQuery } from '../api/queries';
import { PLURALS } from '../api/record-kinds';
import { useWords } from '../api/words';
import { Button, buttonLook } from '../components/button';
import { DataTable } from '../components/data-table';
import { count } from '../components/format';
import { ListFilter } from '../components/list-filter';
import { PageHead } from '../components/sheet';
import { Empty, Failed, Loading } from '../components/status';
import { isOverdue, TaskDue } from '../components/task-due';
import { Time } from '../components/time';
import { usePageKeys } from '../components/list-keys';
import { useAddress } from '../state/use-address';
import { CalendarDialog } from './calendar-dialog';
import { ChosenTasks } from './chosen-tasks';
import { ToAnswer } from './to-answer';
import { useFinish } from './use-finish';

const STATES: readonly [TaskState, string][] = [
  ['open', 'Open'],
  ['overdue', 'Overdue'],
  ['done', 'Done'],
];
/** Whose tasks are shown: those of everybody, in the address. */
const EVERYBODY = 'everybody';

/** What is to be done about records: one's own first, the next due first; marked as done by keyboard. */
export function Tasks() {
  const [params, set] = useAddress();
  const me = useQuery(sessionQuery).data?.person.key;
  const people = useQuery(peopleQuery).data ?? [];
  const navigate = useNavigate();
  const whose = params.get('owner') ?? me;
  const owner = whose === EVERYBODY ? undefined : whose;
  const asked = params.get('state');
  const state = STATES.find(([key]) => key === asked)?.[0] ?? 'open';
  const tasks = useInfiniteQuery({ ...tasksQuery({ owner, state }), enabled: me !== undefined });
  const counts = useQuery({ ...taskCountsQuery(owner), enabled: me !== undefined }).data;
  const [subscribing, setSubscribing] = useState(false);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const finish = useFinish(() => setChosen(new Set()));
  const isDone = state === 'done';
  usePageKeys({ d: () => chosen.size && finish.mutate({ ids: [...chosen], done: !isDone }) });
  const columns = useColumns(state, owner === undefined);
  const go = (next: TaskState) => {
    setChosen(new Set());
    set('state', next === 'open' ? null : next);
  };
  return (
    <div className="flex h-full flex-col p-5 max-sm:p-3">
      <PageHead
        title={owner === me ? 'My tasks' : 'Tasks'}
        aside={counts && (counts.today ? `${count(counts.today)} due today` : 'none due today')}
      >
        <Link to="/fairness" className={buttonLook('quiet')}>
          Who got what
        </Link>
        <Button onClick={() => setSubscribing(true)}>Calendar…</Button>
      </PageHead>
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <div role="group" aria-label="Which tasks" className="inline-flex rounded border border-line">
          {STATES.map(([key, name]) => (
            <button
              key={key}
              type="button"
              aria-pressed={state === key}
              onClick={() => go(key)}
              className={`inline-flex h-7 items-center gap-1.5 border-r border-line px-2.5 last:border-r-0 ${state === key ? 'bg-straw-soft font-semibold' : 'hover:bg-hair'}`}
            >
              {name}
              {counts && key !== 'done' && <span className="text-muted tabular-nums">{count(counts[key])}</span>}
            </button>
          ))}
        </div>
        <ListFilter
          label="of"
          any="me"
          value={whose === me ? '' : (whose ?? '')}
          options={[
            [EVERYBODY, 'everybody'],
            ...people.filter(({ key, active }) => active && key !== me).map(({ key, name }) => [key, name] as const),
          ]}
          choose={(value) => {
            setChosen(new Set());
            set('owner', value);
          }}
        />
        <span className="ml-auto text-small text-muted max-sm:hidden">
          x chooses, d marks as {isDone ? 'open' : 'done'}
        </span>
      </div>
      {subscribing && <CalendarDialog owner={owner} close={() => setSubscribing(false)} />}
      {chosen.size > 0 && (
        <ChosenTasks
          chosen={chosen.size}
          isDone={isDone}
          isBusy={finish.isPending}
          finish={() => finish.mutate({ ids: [...chosen], done: !isDone })}
          clear={() => setChosen(new Set())}
        />
      )}
      {me !== undefined && state === 'open' && <ToAnswer owner={owner} />}
      {tasks.isPending ? (
        <Loading lines={12} />
      ) : tasks.isError ? (
        <Failed error={tasks.error} retry={() => void tasks.refetch()} />
      ) : (
        <div className="min-h-0 flex-1">
          <DataTable
            label="Tasks"
            columns={columns}
            rows={tasks.data.pages.flatMap(({ items }) => items)}
            nameOf={({ text }) => text}
            open={({ kind, record }) => void navigate(`/records/${PLURALS[kind]}/${record}`)}
            more={tasks.hasNextPage && !tasks.isFetchingNextPage ? () => void tasks.fetchNextPage() : undefined}
            choice={{
              chosen,
              choose: (ids, add) =>
                setChosen((before) => {
                  const next = new Set(before);
                  for (const id of ids)
                    if (add) next.add(id);
                    else next.delete(id);
                  return next;
                }),
            }}
            empty={<NoTasks state={state} />}
          />
        </div>
      )}
    </div>
  );
}

function NoTasks({ state }: { state: TaskState }) {
  if (state === 'overdue') return <Empty title="Nothing is overdue" />;
  if (state === 'done') return <Empty title="Nothing is done yet" />;
  return (
    <Empty title="Nothing to do">
      Tasks come from records, and from routes: open a route, <i>Follow up</i>, <i>Add a follow-up</i>, <i>Task</i>.
    </Empty>
  );
}

function useColumns(state: TaskState, withOwner: boolean): ColumnDef<TaskLine>[] {
  const words = useWords();
  const people = useQuery(peopleQuery).data ?? [];
  const ownerColumn: ColumnDef<TaskLine> = {
    id: 'owner',
    header: 'For',
    cell: ({ row: { original } }) => people.find(({ key }) => key === original.owner)?.name ?? 'nobody yet',
    meta: { width: 'minmax(0,120px)', wide: true },
  };
  return [
    {
      id: 'text',
      header: 'Task',
      cell: ({ row: { original } }) => (
        <span title={original.body ?? original.text}>
          {original.priority === 'high' && state !== 'done' && <b className="font-semibold text-brick">high </b>}
          <b className="font-semibold">{original.text}</b>
          {original.body && <span className="text-muted"> {original.body}</span>}
        </span>
      ),
      meta: { width: 'minmax(0,3fr)' },
    },
    {
      id: 'about',
      header: 'About',
      cell: ({ row: { original } }) => (
        <Link
          to={`/records/${PLURALS[original.kind]}/${original.record}`}
          className="text-slate hover:underline"
          title={`${words.One(original.kind)} ${original.name}`}
        >
          {original.name}
        </Link>
      ),
      meta: { width: 'minmax(0,2fr)' },
    },
    ...(withOwner ? [ownerColumn] : []),
    state === 'done'
      ? {
          id: 'done',
          header: 'Done',
          cell: ({ row: { original } }) => (
            <>
              {original.doneAt && <Time at={original.doneAt} />} by {original.doneBy}
            </>
          ),
          meta: { width: 'clamp(96px,24vw,220px)' },
        }
      : {
          id: 'due',
          header: 'Due',
          cell: ({ row: { original } }) =>
            original.due ? (
              <span className={isOverdue(original.due) ? 'font-semibold text-brick' : ''}>
                <TaskDue due={original.due} />
              </span>
            ) : (
              <span className="text-muted">at any time</span>
            ),
          meta: { width: 'clamp(96px,24vw,150px)' },
        },
  ];
}
