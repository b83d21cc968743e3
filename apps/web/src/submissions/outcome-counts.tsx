import { RUN_OUTCOMES, type RunOutcome } from '@haycart/api';
import { capitalised } from '@haycart/core';
import type { ReactNode } from 'react';
import { count } from '../components/format';
import { STATE_WORDS, StateShape, type ShownState } from '../components/state-shape';

/** Shown only where there are any, unlike what runs come to. */
const RARE: readonly ShownState[] = ['waiting', 'set-aside', 'unrouted', 'cancelled'];
const SHOWN: readonly ShownState[] = [...RUN_OUTCOMES, ...RARE];

/** How many ended how, in one line; one that is pressed narrows the list to it, and "All" takes that away. */
export function OutcomeCounts({
  counts,
  chosen,
  choose,
}: {
  counts: Partial<Record<ShownState, number>>;
  chosen: string | undefined;
  choose: (outcome: ShownState | null) => void;
}) {
  const all = SHOWN.reduce((sum, state) => sum + (counts[state] ?? 0), 0);
  return (
    <div role="group" aria-label="How they ended" className="flex flex-wrap rounded border border-line bg-sheet">
      <Segment pressed={chosen === undefined} press={() => choose(null)} number={all}>
        All
      </Segment>
      {SHOWN.filter((state) => counts[state] || state === chosen || isUsual(state)).map((state) => (
        <Segment
          key={state}
          pressed={chosen === state}
          press={() => choose(chosen === state ? null : state)}
          number={counts[state] ?? 0}
        >
          <StateShape state={state} /> {capitalised(STATE_WORDS[state])}
        </Segment>
      ))}
    </div>
  );
}

function Segment({
  pressed,
  press,
  number,
  children,
}: {
  pressed: boolean;
  press: () => void;
  number: number;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-pressed={pressed}
      onClick={press}
      className={`flex h-8 items-center gap-2 border-r border-line px-3 first:rounded-l last:border-r-0 max-sm:px-2.5 ${pressed ? 'bg-straw-soft' : 'hover:bg-raised'} ${number ? '' : 'text-muted'}`}
    >
      {children} <b className="font-semibold">{count(number)}</b>
    </button>
  );
}

function isUsual(state: ShownState): state is RunOutcome {
  return !RARE.includes(state);
}
