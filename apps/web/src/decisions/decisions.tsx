import type { DecisionLine } from '@haycart/api';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { decisionsQuery } from '../api/queries';
import { aboutDecision, DECISION_TITLES, isFailure } from '../components/decision-line';
import { usePageKeys } from '../components/list-keys';
import { StateShape } from '../components/state-shape';
import { Empty, Failed, Loading } from '../components/status';
import { Decision } from './decision';
import { useDecide } from './decide';

/** How long one decision takes on average, in seconds, for the estimate above the list. */
const SECONDS_EACH = 20;

/** Everything that waits for a person: a list at left, one decision at right, all of it by keyboard. */
export function Decisions() {
  const { id } = useParams();
  const navigate = useNavigate();
  const list = useQuery(decisionsQuery);
  const [later, setLater] = useState<readonly string[]>([]);
  const ordered = (list.data ?? []).toSorted((a, b) => later.indexOf(a.id) - later.indexOf(b.id));
  const found = ordered.findIndex((line) => line.id === id);
  // What settled with another decision, as a second pair of a record that was merged, gives way to what stood after it.
  const [last, setLast] = useState(0);
  const [seen, setSeen] = useState<string>();
  if (found >= 0 && found !== last) setLast(found);
  if (found >= 0 && id !== seen) setSeen(id);
  // An address that never led to one is no one’s; what settled meanwhile did.
  const isUnknown = id !== undefined && list.data !== undefined && found < 0 && seen === undefined;
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
      <Lines lines={ordered} current={isUnknown ? null : line.id} open={go} />
      <div className="min-h-0 min-w-0 overflow-y-auto">
        {isUnknown ? (
          <Empty title="There is no such decision">Somebody may have taken it. What waits stands in the list.</Empty>
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
  current,
  open,
}: {
  lines: readonly DecisionLine[];
  current: string | null;
  open: (line: DecisionLine) => void;
}) {
  const chosen = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    void chosen.current?.scrollIntoView({ block: 'nearest' });
  }, [current]);
  const minutes = Math.max(1, Math.round((lines.length * SECONDS_EACH) / 60));
  return (
    <nav
      aria-label="To decide"
      className="flex min-h-0 flex-col rounded border border-line bg-sheet max-md:max-h-[30dvh] md:h-full"
    >
      <p className="flex-none border-b border-line px-3 py-2.5 text-small font-semibold text-muted">
        {lines.length} to decide, about {minutes === 1 ? 'a minute' : `${minutes} minutes`}
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
                  <StateShape state={isFailure(line) ? 'failed' : 'held'} />
                  <b className="min-w-0 flex-1 truncate font-semibold">{DECISION_TITLES[line.kind]}</b>
                  {line.count > 1 && <span className="text-small text-muted tabular-nums">{line.count}</span>}
                </span>
                <span className="block truncate text-small text-muted" title={`${line.subject}: ${line.detail}`}>
                  {aboutDecision(line)}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </nav>
  );
}
