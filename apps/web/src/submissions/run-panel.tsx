import type { RunLine, SubmissionDetail } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { takeBack } from '../api/edits';
import { runQuery, submissionQuery } from '../api/queries';
import { seconds } from '../components/format';
import { Points } from '../components/points';
import { RunAccount } from '../components/run-account';
import { Failed, Loading } from '../components/status';
import { Time } from '../components/time';
import { PanelActions } from './panel-actions';
import { PanelHead, type PanelSteps } from './panel-head';
import { RunAttempts } from './run-attempts';
import { SentOn } from './sent-on';
import { WhatWasSent } from '../components/what-was-sent';

/** One submission: what became of it, the account of its run, and what was sent. */
export function RunPanel({ id, close, steps }: { id: string; close: () => void; steps: PanelSteps | null }) {
  const submission = useQuery(submissionQuery(id));
  const [chosen, setChosen] = useState(0);
  return (
    <aside
      aria-label="The submission"
      className="flex w-full flex-none flex-col border-ink bg-sheet lg:w-[452px] lg:border-l-2"
    >
      {submission.isPending ? (
        <Loading />
      ) : submission.isError ? (
        <Failed error={submission.error} retry={() => void submission.refetch()} />
      ) : (
        <>
          <PanelHead submission={submission.data} run={submission.data.runs[chosen]} steps={steps} close={close} />
          {submission.data.runs.length > 1 && (
            <div role="tablist" aria-label="Routes" className="flex gap-1 border-b border-line px-5">
              {submission.data.runs.map((run, index) => (
                <button
                  key={run.id}
                  type="button"
                  role="tab"
                  aria-selected={index === chosen}
                  onClick={() => setChosen(index)}
                  className={`border-b-2 px-2 pb-1.5 ${index === chosen ? 'border-straw font-semibold' : 'border-transparent'}`}
                >
                  {run.route.name}
                </button>
              ))}
            </div>
          )}
          <div
            className="min-h-0 flex-1 overflow-y-auto border-t border-hair px-5 pb-4"
            tabIndex={0}
            aria-label="Account of the run"
          >
            {submission.data.runs[chosen] ? (
              <Account run={submission.data.runs[chosen]} />
            ) : (
              <Unrouted submission={submission.data} />
            )}
            <WhatWasSent submission={submission.data} />
          </div>
          <PanelActions submission={submission.data} run={submission.data.runs[chosen]} />
        </>
      )}
    </aside>
  );
}

function Account({ run: { id } }: { run: RunLine }) {
  const run = useQuery(runQuery(id));
  if (run.isPending) return <Loading />;
  if (run.isError) return <Failed error={run.error} retry={() => void run.refetch()} />;
  const took = (Date.parse(run.data.finishedAt) - Date.parse(run.data.receivedAt)) / 1_000;
  return (
    <>
      {run.data.takenBack && <TakenBackBy {...run.data.takenBack} />}
      <RunAccount
        routeId={run.data.route.id}
        account={run.data.account}
        receivedAt={run.data.receivedAt}
        isUndone={run.data.outcome === 'taken-back'}
      />
      <p className="mt-2 text-small text-muted">
        Route{' '}
        <Link to={`/routes/${run.data.route.id}`} className="text-slate underline">
          {run.data.route.name}
        </Link>
        , version {run.data.version}, {seconds(took)} from arrival to{' '}
        {run.data.outcome === 'written' ? 'written' : 'the end'}
      </p>
      <SentOn run={run.data} />
      <RunAttempts run={run.data} />
    </>
  );
}

/** Who took the run back and when, with the way back. */
function TakenBackBy({ edit, by, at }: { edit: string; by: string; at: string }) {
  const client = useQueryClient();
  const give = useMutation({ mutationFn: () => takeBack(client, edit) });
  return (
    <p className="mb-3 flex flex-wrap items-center gap-x-3 gap-y-1 rounded bg-hair px-2.5 py-1.5">
      <span>
        {by} took it back <Time at={at} />
      </span>
      <button type="button" className="text-slate underline" disabled={give.isPending} onClick={() => give.mutate()}>
        Give it back
      </button>
    </p>
  );
}

function Unrouted({ submission }: { submission: SubmissionDetail }) {
  if (submission.state === 'set-aside')
    return (
      <>
        <p className="mb-3 text-muted">
          It looks as if no person had sent it. Nothing was written; release it if one did.
        </p>
        <Points title="Why it was set aside" state="held" points={submission.suspicion?.reasons ?? []} />
      </>
    );
  if (submission.state === 'cancelled')
    return (
      <p className="text-muted">
        The file that it was a row of was taken back before its turn came. Nothing was written; run it again to have it
        routed.
      </p>
    );
  if (submission.state === 'waiting')
    return (
      <p className="text-muted">
        {submission.tries
          ? `Tried ${submission.tries} times; it is tried again by itself.`
          : 'It is routed in a moment.'}
      </p>
    );
  return (
    <p className="text-muted">
      It is kept, and nothing was written: no published route takes from {submission.intake.name}.{' '}
      <Link className="text-slate underline" to="/routes">
        Make one
      </Link>
      , then run this again.
    </p>
  );
}
