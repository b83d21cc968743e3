import type { ComparisonShape, PlannedOutcomes } from '@haycart/api';
import { counted } from '@haycart/core';
import { useLocation } from 'react-router';
import { Button } from '../components/button';
import { DifferenceGroups } from '../components/difference-groups';
import { count } from '../components/format';
import { StateShape } from '../components/state-shape';

const OUTCOMES = [
  ['write', 'written'],
  ['hold', 'held'],
  ['skip', 'skipped'],
  ['fail', 'failed'],
] as const satisfies [keyof PlannedOutcomes, 'written' | 'held' | 'skipped' | 'failed'][];

/** How many submissions would go which way, which differ and how; each kind opens to its examples. */
export function ManyResult({ found, cancel }: { found: ComparisonShape; cancel: () => void }) {
  const { state, total, looked, before, after, differ, groups } = found;
  const { pathname } = useLocation();
  return (
    <section aria-label="Rehearsed on many" className="flex flex-col gap-3">
      {state === 'working' ? (
        <div className="flex items-center gap-3">
          <progress
            className="h-1.5 flex-1 accent-green"
            value={looked}
            max={Math.max(total, 1)}
            aria-label="Rehearsed"
          />
          <span className="text-small text-muted tabular-nums" role="status">
            {count(looked)} of {count(total)}
            {left(found)}
          </span>
          <Button className="!h-7" onClick={cancel}>
            Cancel
          </Button>
        </div>
      ) : (
        <p role="status">
          {state === 'cancelled' && 'Cancelled. '}
          <b className="font-semibold">{counted(looked, 'submission')}</b> rehearsed
          {before
            ? differ
              ? `, ${count(differ)} of them ${differ === 1 ? 'differs' : 'differ'}.`
              : ', none of them differs.'
            : '.'}
        </p>
      )}
      <table className="w-full text-small">
        <thead>
          <tr className="border-b border-line text-left text-label text-muted">
            <th className="py-1 font-semibold">Would be</th>
            {before && <th className="py-1 text-right font-semibold">{before.name}</th>}
            <th className="py-1 text-right font-semibold">{after.name}</th>
          </tr>
        </thead>
        <tbody>
          {OUTCOMES.map(([outcome, word]) => (
            <tr key={outcome} className="border-b border-hair">
              <td className="py-1">
                <span className="flex items-center gap-2">
                  <StateShape state={word} /> {word}
                </span>
              </td>
              {before && <td className="py-1 text-right tabular-nums">{count(before.outcomes[outcome])}</td>}
              <td className="py-1 text-right tabular-nums">{count(after.outcomes[outcome])}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <DifferenceGroups groups={groups} sampleAt={(submission) => `${pathname}?sample=${submission}`} />
    </section>
  );
}

/** How long it will still take, from how long it took so far. */
function left({ looked, total, startedAt }: ComparisonShape): string {
  const seconds = ((Date.now() - Date.parse(startedAt)) / 1_000) * (total / Math.max(looked, 1) - 1);
  return looked && seconds >= 1 ? `, about ${counted(Math.round(seconds), 'second')} left` : '';
}
