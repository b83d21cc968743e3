import type { DecisionShape, DecisionView } from '@haycart/api';
import { percent } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { fieldsQuery } from '../api/queries';
import { useWords } from '../api/words';
import { Button } from '../components/button';
import { ComparedSides, sideOf, type ShownSide } from '../components/compared-sides';
import { usePageKeys } from '../components/list-keys';
import { Key, Sheet } from '../components/sheet';
import type { Deciding } from './decide';

/** Which record a submission means: what came in beside each record that may be meant. */
export function WhichDecision({
  decision,
  which,
  busy,
  decide,
  later,
}: {
  decision: DecisionShape;
  which: Extract<DecisionView, { as: 'which' }>;
  busy: boolean;
  decide: (deciding: Deciding) => void;
  later: () => void;
}) {
  const words = useWords();
  const fields = useQuery(fieldsQuery);
  const [at, setAt] = useState(0);
  const { kind, candidates, submission } = which;
  const own = (fields.data ?? []).filter(({ record }) => record === kind);
  const candidate = candidates[at];
  const word = kind === 'contact' ? 'person' : words.one(kind);
  const act = (action: 'same' | 'new-record' | 'no-record') => {
    if (busy) return;
    decide({ ids: [decision.id], action, ...(action === 'same' && candidate ? { record: candidate.id } : {}) });
  };
  usePageKeys({
    ...(candidate ? { s: () => act('same') } : {}),
    n: () => act('new-record'),
    o: () => act('no-record'),
    l: later,
    ...Object.fromEntries(candidates.slice(0, 9).map((_, index) => [String(index + 1), () => setAt(index)])),
  });
  const arrived: ShownSide = {
    title: 'Arrived',
    to: `/submissions?open=${submission}`,
    texts: Object.fromEntries(
      which.came.flatMap(({ label, text }) => {
        const field = own.find((one) => one.label === label);
        return field ? [[field.key, text]] : [];
      }),
    ),
    companies: [],
  };
  return (
    <article className="flex flex-col gap-4">
      <header>
        <h1 className="text-[26px] leading-8">
          {candidates.length > 1 ? `Which ${word} is ${decision.subject}?` : `Is this ${word} known?`}
        </h1>
        <p className="mt-1 text-muted">
          {decision.detail}{' '}
          <Link to={`/submissions?open=${submission}`} className="text-slate underline">
            The submission
          </Link>{' '}
          waits until you decide; nothing is written yet.
        </p>
      </header>
      {candidates.length > 1 && (
        <ul aria-label="Possible matches" className="flex flex-wrap gap-2">
          {candidates.map(({ id, name, probability }, index) => (
            <li key={id}>
              <button
                type="button"
                aria-pressed={index === at}
                onClick={() => setAt(index)}
                className={`flex h-8 items-center gap-2 rounded border px-2.5 ${index === at ? 'border-ink bg-straw-soft' : 'border-line bg-sheet hover:border-muted'}`}
              >
                {index < 9 && <Key>{index + 1}</Key>}
                {name}
                {probability !== null && <span className="text-small text-muted">{percent(probability)}</span>}
              </button>
            </li>
          ))}
        </ul>
      )}
      {candidate ? (
        <ComparedSides one={arrived} other={sideOf(candidate)} shares={candidate.shares} fields={own} />
      ) : (
        <Sheet className="p-3.5 text-muted">No matching record.</Sheet>
      )}
      <div className="flex flex-wrap items-center gap-2">
        {candidate && (
          <Button look="main" disabled={busy} onClick={() => act('same')}>
            Same {word} <Key>S</Key>
          </Button>
        )}
        <Button look={candidate ? 'quiet' : 'main'} disabled={busy} onClick={() => act('new-record')}>
          A new one <Key>N</Key>
        </Button>
        <Button disabled={busy} onClick={() => act('no-record')}>
          Write none <Key>O</Key>
        </Button>
        <Button onClick={later}>
          Later <Key>L</Key>
        </Button>
        <span className="min-w-[28ch] flex-1 text-small text-muted">
          The submission goes through its route again, as you say, and whoever comes like this is learned from.
        </span>
      </div>
    </article>
  );
}
