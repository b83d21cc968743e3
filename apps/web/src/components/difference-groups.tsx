import type { DifferenceGroup } from '@haycart/api';
import { Link } from 'react-router';
import { count } from './format';

/** How submissions come out otherwise, by kind of difference; each opens to its examples. */
export function DifferenceGroups({
  groups,
  open = false,
  sampleAt,
}: {
  groups: readonly DifferenceGroup[];
  /** Whether the examples are shown at once. */
  open?: boolean;
  /** Where an example leads to. */
  sampleAt: (submission: string) => string;
}) {
  return groups.map(({ kind, text, count: times, examples }) => (
    <details key={kind} open={open} className="border-b border-hair pb-1.5">
      <summary className="cursor-pointer">
        <b className="font-semibold tabular-nums">{count(times)}</b> {text}
      </summary>
      <ul className="mt-1 flex flex-col gap-0.5 pl-4 text-small">
        {examples.map(({ submission, who, before: was, after: is }) => (
          <li key={submission} className="truncate">
            <Link to={sampleAt(submission)} className="text-slate underline">
              {who || 'unnamed'}
            </Link>{' '}
            <span className="text-muted">{was || 'blank'}</span> → {is || 'blank'}
          </li>
        ))}
        {times > examples.length && <li className="text-muted">and {count(times - examples.length)} more</li>}
      </ul>
    </details>
  ));
}
