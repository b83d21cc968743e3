import type { AttemptLine, RunShape } from '@haycart/api';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { attemptQuery } from '../api/queries';
import { RunAccount } from '../components/run-account';
import { StateShape } from '../components/state-shape';
import { Failed, Loading } from '../components/status';
import { Time } from '../components/time';

/** Each try through the same route, and each time that blanks were filled in since; one before the latest opens in its place. */
export function RunAttempts({ run: { id: run, attempt: latest, attempts } }: { run: RunShape }) {
  const [open, setOpen] = useState<string | null>(null);
  if (attempts.length < 2) return null;
  return (
    <section className="mt-3 border-t border-line pt-3">
      <h3 className="mb-1 text-[14px]">Attempts</h3>
      <ol className="flex flex-col gap-1">
        {attempts.map((attempt) => {
          const { id, why } = attempt;
          return (
            <li key={id}>
              {id === latest || why === 'fill-in' ? (
                <p className="flex items-start gap-2 px-1 py-0.5">
                  <AttemptWords attempt={attempt} />
                </p>
              ) : (
                <button
                  type="button"
                  aria-expanded={open === id}
                  onClick={() => setOpen(open === id ? null : id)}
                  className="flex w-full items-start gap-2 rounded px-1 py-0.5 text-left hover:bg-hair"
                >
                  <AttemptWords attempt={attempt} />
                </button>
              )}
              {open === id && <EarlierAccount run={run} attempt={attempt} />}
            </li>
          );
        })}
      </ol>
    </section>
  );
}

function AttemptWords({ attempt: { outcome, summary, by, version, finishedAt } }: { attempt: AttemptLine }) {
  return (
    <>
      <span className="pt-px">
        <StateShape state={outcome} word />
      </span>
      <span className="min-w-0 flex-1">
        {summary}
        {by !== null && `, by ${by}`}
        {outcome === 'taken-back' && <span className="block text-small text-muted">taken back since</span>}
      </span>
      <span className="flex-none text-small text-muted">
        version {version}, <Time at={finishedAt} />
      </span>
    </>
  );
}

function EarlierAccount({ run, attempt: { id, outcome } }: { run: string; attempt: AttemptLine }) {
  const opened = useQuery(attemptQuery(run, id));
  if (opened.isPending) return <Loading lines={3} />;
  if (opened.isError) return <Failed error={opened.error} retry={() => void opened.refetch()} />;
  return (
    <div className="mt-2 pl-5">
      <RunAccount
        routeId={opened.data.route.id}
        account={opened.data.account}
        receivedAt={opened.data.receivedAt}
        isUndone={outcome === 'taken-back'}
      />
    </div>
  );
}
