import { RUN_OUTCOMES } from '@haycart/api';
import { count } from '../components/format';
import { STATE_WORDS, StateShape, type ShownState } from '../components/state-shape';

const SHOWN: readonly ShownState[] = [...RUN_OUTCOMES, 'waiting', 'set-aside', 'unrouted', 'cancelled'];

/** How many ended how, in one line; one that is pressed narrows the list to it, and pressed again to all. */
export function OutcomeCounts({
  counts,
  chosen,
  choose,
}: {
  counts: Partial<Record<ShownState, number>>;
  chosen: string | undefined;
  choose: (outcome: ShownState | null) => void;
}) {
  return SHOWN.filter((state) => counts[state] || state === chosen).map((state) => (
    <button
      key={state}
      type="button"
      aria-pressed={chosen === state}
      onClick={() => choose(chosen === state ? null : state)}
      className={`flex h-7 items-center gap-1.5 rounded px-1.5 hover:bg-hair ${chosen === state ? 'bg-straw-soft text-ink' : ''}`}
    >
      <StateShape state={state} />
      <span className="tabular-nums">{count(counts[state] ?? 0)}</span> {STATE_WORDS[state]}
    </button>
  ));
}
