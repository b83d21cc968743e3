import type { ReadyCheck } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { ArrowRight } from 'lucide-react';
import { Link } from 'react-router';
import { readinessQuery } from '../api/queries';
import { Sheet } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { Failed, Loading } from '../components/status';
import { SetUpPage } from './set-up-page';

const SHOWN = 6;

/** Is it ready? Every question about what was prepared, with what speaks against a yes and the way to it. */
export function ReadySetUp() {
  const checks = useQuery(readinessQuery);
  if (checks.isPending) return <Loading />;
  if (checks.isError) return <Failed error={checks.error} retry={() => void checks.refetch()} />;
  const stops = checks.data.filter(({ weight, items }) => weight === 'stop' && items.length);
  const looks = checks.data.filter(({ weight, items }) => weight === 'look' && items.length);
  return (
    <SetUpPage about="what is prepared, and what is still missing">
      <p className="text-base">
        <b className="font-semibold">
          {stops.length ? 'Not yet.' : looks.length ? 'Ready, with something to look at.' : 'Ready.'}
        </b>{' '}
        <span className="text-muted">
          {stops.length
            ? 'What is crossed out keeps submissions from being written as they should.'
            : 'Submissions can arrive and be written.'}
        </span>
      </p>
      <div className="gap-4 lg:columns-2 [&>*]:mb-4 [&>*]:break-inside-avoid">
        {checks.data.map((check) => (
          <Check key={check.name} check={check} />
        ))}
      </div>
    </SetUpPage>
  );
}

function Check({ check: { question, weight, items } }: { check: ReadyCheck }) {
  const state = !items.length ? 'written' : weight === 'stop' ? 'failed' : 'held';
  return (
    <Sheet>
      <header className={`flex items-center gap-2.5 px-4 py-2.5 ${items.length ? 'border-b border-line' : ''}`}>
        <StateShape state={state} />
        <h2 className="text-base">{question}</h2>
        <span className="ml-auto text-small text-muted">
          {!items.length ? 'yes' : weight === 'stop' ? `no, ${items.length}` : `not all, ${items.length}`}
        </span>
      </header>
      {items.length > 0 && (
        <ul className="px-4 py-1">
          {items.slice(0, SHOWN).map(({ text, path }) => (
            <li key={text} className="border-b border-hair last:border-b-0">
              <Link to={path} className="flex items-center gap-2 py-1.5 hover:underline">
                <span className="min-w-0 flex-1">{text}</span>
                <ArrowRight className="size-3.5 flex-none text-muted" aria-hidden />
              </Link>
            </li>
          ))}
          {items.length > SHOWN && <li className="py-1.5 text-small text-muted">and {items.length - SHOWN} more</li>}
        </ul>
      )}
    </Sheet>
  );
}
