import type { AttemptLine, RunLine, RunShape, SubmissionDetail } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { RotateCw, Undo2, X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call } from '../api/client';
import { takeBack } from '../api/edits';
import { attemptQuery, runQuery, submissionQuery } from '../api/queries';
import { Button, buttonLook, IconButton } from '../components/button';
import { seconds } from '../components/format';
import { Mono } from '../components/sheet';
import { Points } from '../components/points';
import { SentFiles } from '../components/sent-files';
import { StateShape, stateOf } from '../components/state-shape';
import { Failed, Loading, messageOf } from '../components/status';
import { TakeBackDialog } from '../components/take-back';
import { RunAccount } from '../components/run-account';
import { Time } from '../components/time';
import { SentOn } from './sent-on';

/** One submission: the account of its run, and what was sent, as it came. */
export function RunPanel({ id, close }: { id: string; close: () => void }) {
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
          <Head submission={submission.data} run={submission.data.runs[chosen]} close={close} />
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
          <div className="min-h-0 flex-1 overflow-y-auto px-5 py-3" tabIndex={0} aria-label="Account of the run">
            {submission.data.runs[chosen] ? (
              <Account run={submission.data.runs[chosen]} />
            ) : (
              <Unrouted submission={submission.data} />
            )}
            <SentFiles submission={submission.data} />
            <Sent submission={submission.data} />
          </div>
          <Actions submission={submission.data} run={submission.data.runs[chosen]} />
        </>
      )}
    </aside>
  );
}

function Head({
  submission,
  run,
  close,
}: {
  submission: SubmissionDetail;
  run: RunLine | undefined;
  close: () => void;
}) {
  return (
    <header className="flex items-start gap-2 px-5 pt-4 pb-2">
      <div className="min-w-0 flex-1">
        <h2 className="flex items-center gap-2 text-lg leading-6">
          <StateShape state={stateOf(submission)} word />
          <span className="min-w-0 truncate">
            {submission.who || submission.email || 'Unnamed'}, {submission.intake.name}
          </span>
        </h2>
        <p className="text-small text-muted">
          {submission.state === 'set-aside'
            ? 'Set aside'
            : run
              ? `Route ${run.route.name}`
              : submission.state === 'waiting'
                ? 'Waiting to be routed'
                : submission.state === 'cancelled'
                  ? 'Cancelled with its file'
                  : 'No route takes from this intake'}
          , arrived <Time at={submission.receivedAt} />
        </p>
      </div>
      <IconButton label="Close (Esc)" onClick={close}>
        <X className="size-4" aria-hidden />
      </IconButton>
    </header>
  );
}

function Account({ run: { id } }: { run: RunLine }) {
  const run = useQuery(runQuery(id));
  if (run.isPending) return <Loading />;
  if (run.isError) return <Failed error={run.error} retry={() => void run.refetch()} />;
  const took = (Date.parse(run.data.finishedAt) - Date.parse(run.data.receivedAt)) / 1_000;
  return (
    <>
      <p className="mb-3 text-small text-muted">
        Version {run.data.version} of the route, {seconds(took)} from arrival to{' '}
        {run.data.outcome === 'written' ? 'written' : 'the end'}
      </p>
      {run.data.takenBack && <TakenBackBy {...run.data.takenBack} />}
      <RunAccount
        account={run.data.account}
        receivedAt={run.data.receivedAt}
        isUndone={run.data.outcome === 'taken-back'}
      />
      <SentOn run={run.data} />
      <Attempts run={run.data} />
    </>
  );
}

/** Each try through the same route, and each time that blanks were filled in since; one before the latest opens in its place. */
function Attempts({ run: { id: run, attempt: latest, attempts } }: { run: RunShape }) {
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
        account={opened.data.account}
        receivedAt={opened.data.receivedAt}
        isUndone={outcome === 'taken-back'}
      />
    </div>
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

function Sent({ submission }: { submission: SubmissionDetail }) {
  return (
    <details className="mt-5 border-t border-line pt-3" open={submission.unreadable !== null}>
      <summary className="cursor-pointer font-semibold">What was sent, as it came</summary>
      {submission.unreadable && <p className="mt-2 text-brick">{submission.unreadable}</p>}
      <pre
        className="mt-2 overflow-x-auto rounded border border-line bg-raised p-2.5 font-mono text-[12px] leading-[17px] whitespace-pre-wrap [overflow-wrap:anywhere]"
        tabIndex={0}
      >
        {submission.payload === null ? submission.raw : JSON.stringify(submission.payload, null, 2)}
      </pre>
      <h3 className="mt-3 mb-1 text-[14px]">The visit</h3>
      <dl className="grid grid-cols-[110px_minmax(0,1fr)] gap-x-3 text-small">
        {Object.entries(submission.visit).map(([name, value]) => (
          <div key={name} className="contents">
            <dt>
              <Mono>{name}</Mono>
            </dt>
            <dd className="[overflow-wrap:anywhere]">{value}</dd>
          </div>
        ))}
        {Object.keys(submission.visit).length === 0 && <p className="col-span-2 text-muted">Nothing was recorded.</p>}
      </dl>
    </details>
  );
}

function Actions({ submission, run }: { submission: SubmissionDetail; run: RunLine | undefined }) {
  const client = useQueryClient();
  const again = useMutation({
    mutationFn: () => call('POST', `/submissions/${submission.id}/run-again`),
    onSuccess: () => client.invalidateQueries({ queryKey: ['submissions'] }),
    onError: (error) => toast.error(messageOf(error)),
  });
  const oneAgain = useMutation({
    mutationFn: (id: string) => call('POST', `/runs/${id}/run-again`),
    onSuccess: () => client.invalidateQueries({ queryKey: ['submissions'] }),
    onError: (error) => toast.error(messageOf(error)),
  });
  const [takingBack, setTakingBack] = useState(false);
  const settled = run?.outcome === 'written' || run?.outcome === 'skipped' || run?.outcome === 'taken-back';
  return (
    <footer className="flex flex-wrap gap-2 border-t border-line px-5 py-3">
      {submission.state === 'set-aside' && (
        <Button look="main" disabled={again.isPending} onClick={() => again.mutate()}>
          Release it
        </Button>
      )}
      {!settled && ['routed', 'unrouted', 'cancelled'].includes(submission.state) && (
        <Button look="main" disabled={again.isPending} onClick={() => again.mutate()}>
          <RotateCw className="size-4" aria-hidden /> Run again
        </Button>
      )}
      {run?.outcome === 'taken-back' && submission.state === 'routed' && (
        <Button look="main" disabled={oneAgain.isPending} onClick={() => oneAgain.mutate(run.id)}>
          <RotateCw className="size-4" aria-hidden /> Run again
        </Button>
      )}
      {run?.outcome === 'written' && (
        <Button onClick={() => setTakingBack(true)}>
          <Undo2 className="size-4" aria-hidden /> Take back…
        </Button>
      )}
      {takingBack && run && (
        <TakeBackDialog
          title="Take back what this run wrote"
          choice={{ runs: [run.id] }}
          close={() => setTakingBack(false)}
        />
      )}
      {run && !submission.unreadable && (
        <Link to={`/routes/${run.route.id}?sample=${submission.id}`} className={buttonLook('quiet')}>
          Rehearse with the draft
        </Link>
      )}
    </footer>
  );
}
