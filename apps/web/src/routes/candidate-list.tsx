import { percent, type CandidateShare, type MatchCandidate, type RecordKind } from '@haycart/core';
import { Link } from 'react-router';
import { PLURALS } from '../api/record-kinds';
import { ShareBar } from '../components/share-bar';
import { nameAlone } from './name-alone';

/** How many shares are told of each: those that weigh most, for or against. */
const TOLD = 3;

/** Records that may be meant, the likeliest first, with what weighs most for and against each. */
export function CandidateList({
  record,
  candidates,
  names,
}: {
  record: RecordKind;
  candidates: readonly MatchCandidate[];
  /** What the records are called, by id: `contact 12 Ada Weir`. */
  names: Record<string, string>;
}) {
  return (
    <ul aria-label="Possible matches" className="flex flex-col gap-2">
      {candidates.map(({ id, probability, shares = [] }) => (
        <li key={id}>
          <p className="flex items-baseline gap-2">
            <Link
              to={`/records/${PLURALS[record]}/${id}`}
              className="min-w-0 flex-1 truncate text-slate hover:underline"
            >
              {nameAlone(names[id] ?? '') || 'a record that was removed since'}
            </Link>
            {probability !== null && <span className="text-small tabular-nums text-muted">{percent(probability)}</span>}
          </p>
          <ul className="mt-0.5 flex flex-col gap-1">
            {weightiest(shares).map((share) => (
              <li key={share.of} className="flex items-start gap-2 text-small">
                <ShareBar bits={share.bits} />
                <span className="min-w-0 flex-1 text-muted">
                  {share.label}: {share.words}
                </span>
              </li>
            ))}
          </ul>
        </li>
      ))}
    </ul>
  );
}

function weightiest(shares: readonly CandidateShare[]): CandidateShare[] {
  return shares
    .filter(({ of, bits }) => of !== 'begin' && bits !== 0)
    .toSorted((a, b) => Math.abs(b.bits) - Math.abs(a.bits))
    .slice(0, TOLD);
}
