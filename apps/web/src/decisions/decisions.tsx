import type { DecisionLine } from '@haycart/api';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { decisionQuery, decisionsQuery } from '../api/queries';
import { count } from '../components/format';
import { usePageKeys } from '../components/list-keys';
import { StateShape } from '../components/state-shape';
import { Empty, Failed, Loading } from '../components/status';
import { Decision } from './decision';
import { useDecide } from './decide';

/** How many are listed at first, and at most; others come as these are decided. */
const [AT_FIRST, AT_MOST] = [200, 1_000];
/** How long one decision takes on average, in seconds, for the estimate above the list. */
const SECONDS_EACH = 20;

/** Everything that waits for a person: a list at left, one decision at right, all of it by keyboard. */
export function Decisions() {
  const { id } = useParams();
  const navigate = useNavigate();
  const [most, setMost] = useState(AT_FIRST);
  const list = useQuery(decisionsQuery(most));
  const [later, setLater] = useState<readonly string[]>([]);
  const listed = list.data?.items ?? [];
  // An address may lead to one beyond those that are listed.
  const isBeyond = id !== undefined && list.data !== undefined && !listed.some((line) => line.id === id);
  const beyond = useQuery({ ...decisionQuery(id ?? ''), enabled: isBeyond && list.data.total > listed.length });
  const lines = isBeyond && beyond.isSuccess ? [beyond.data, ...listed] : listed;
  const ordered = lines.toSorted((a, b) => later.indexOf(a.id) - later.indexOf(b.id));
  const found = ordered.findIndex((line) => line.id === id);
  // What settled with another decision, as a second pair of a record that was merged, gives way to what stood after it.
  const [last, setLast] = useState(0);
  const [seen, setSeen] = useState<string>();
  if (found >= 0 && found !== last) setLast(found);
  if (found >= 0 && id !== seen) setSeen(id);
  // An address that never led to one is no one’s; what settled meanwhile did.
  const isUnknown = isBeyond && found < 0 && seen === undefined && !beyond.isFetching;
  const at = found >= 0 ? found : Math.max(0, Math.min(last, ordered.length - 1));
  const line = ordered[at];
  const go = (to: DecisionLine | undefined) => {
    // At once, so that a key pressed right after it starts from there.
    if (to) void navigate(`/decide/${to.id}`, { replace: true, flushSync: true });
  };
  const decide = useDecide((ids) => go(ordered.slice(at + 1).find((other) => !ids.includes(other.id)) ?? ordered[0]));
  // What is shown stays shown, whatever else comes meanwhile: keys must not fall on another decision.
  useEffect(() => {
    if (line && line.id !== id && !isUnknown) void navigate(`/decide/${line.id}`, { replace: true });
  }, [line, id, isUnknown, navigate]);
  usePageKeys({
    j: () => go(ordered[isUnknown ? 0 : at + 1]),
    k: () => go(ordered[at - 1]),
  });
  if (list.isPending) return <Loading />;
  if (list.isError) return <Failed error={list.error} retry={() => void list.refetch()} />;
  if (!line)
    return (
      <Empty title="Nothing waits for you">
        Runs that fail or are held, answers without a meaning and fields that change at a sender will stand here.
      </Empty>
    );
  return (
    <div className="grid h-full grid-rows-[auto_minmax(0,1fr)] gap-x-5 gap-y-3 p-5 max-md:grid-cols-[minmax(0,1fr)] md:grid-cols-[270px_minmax(0,1fr)] md:grid-rows-1">
      <Lines
        lines={ordered}
        total={list.data.total}
        more={most < AT_MOST && ordered.length < list.data.total ? () => setMost(Math.min(AT_MOST, most * 2)) : null}
        current={isUnknown ? null : line.id}
        open={go}
      />
      <div className="min-h-0 min-w-0 overflow-y-auto">
        {isUnknown ? (
          <Empty title="There is no such decision">Somebody may have decided it. The list shows what is waiting.</Empty>
        ) : (
          <Decision
            key={line.id}
            line={line}
            alike={ordered.filter(({ like }) => like === line.like)}
            busy={decide.isPending}
            decide={(deciding) => decide.mutate(deciding)}
            later={() => {
              setLater([...later.filter((one) => one !== line.id), line.id]);
              go(ordered[at + 1] ?? ordered[0]);
            }}
          />
        )}
      </div>
    </div>
  );
}

function Lines({
  lines,
  total,
  more,
  current,
  open,
}: {
  lines: readonly DecisionLine[];
  total: number;
  /** Shows more of them. */
  more: (() => void) | null;
  current: string | null;
  open: (line: DecisionLine) => void;
}) {
  const chosen = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    void chosen.current?.scrollIntoView({ block: 'nearest' });
  }, [current]);
  const minutes = Math.max(1, Math.round((total * SECONDS_EACH) / 60));
  return (
    <nav
      aria-label="To decide"
      className="flex min-h-0 flex-col rounded border border-line bg-sheet max-md:max-h-[30dvh] md:h-full"
    >
      <p className="flex-none border-b border-line px-3 py-2.5 text-small font-semibold text-muted">
        {count(total)} to decide, about {minutes === 1 ? 'a minute' : `${count(minutes)} minutes`}
      </p>
      <ul className="min-h-0 flex-1 overflow-y-auto">
        {lines.map((line) => {
          const isCurrent = line.id === current;
          return (
            <li key={line.id}>
              <button
                ref={isCurrent ? chosen : undefined}
                type="button"
                aria-current={isCurrent}
                onClick={() => open(line)}
                className={`block w-full border-b border-hair px-3 py-2.5 text-left ${isCurrent ? 'bg-straw-soft shadow-[inset_4px_0_0_var(--color-straw)]' : 'hover:bg-raised'}`}
              >
                <span className="flex items-center gap-2">
                  <StateShape state={line.isFailure ? 'failed' : 'held'} />
                  <b className="min-w-0 flex-1 truncate font-semibold">{line.title}</b>
                  {line.count > 1 && <span className="text-small text-muted tabular-nums">{line.count}</span>}
                </span>
                <span className="block truncate text-small text-muted" title={`${line.subject}: ${line.detail}`}>
                  {line.about}
                </span>
              </button>
            </li>
          );
        })}
        {more && (
          <li className="px-3 py-2.5">
            <button type="button" className="text-slate underline" onClick={more}>
              Show more of them
            </button>
          </li>
        )}
      </ul>
    </nav>
  );
}
