import type { IntakeShape, SubmissionShape } from '@haycart/api';
import { payloadFields, isJsonObject } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { latestSubmissionsQuery } from '../api/queries';
import { Mono, Sheet } from '../components/sheet';
import { StateShape, stateOf } from '../components/state-shape';
import { Failed, Loading } from '../components/status';
import { Time } from '../components/time';

const SHOWN = 8;

/** What arrives at an intake, while one looks: the latest submissions, newest first, each with what was read. */
export function Listening({ intake }: { intake: IntakeShape }) {
  const latest = useQuery(latestSubmissionsQuery(intake.key, SHOWN));
  const [opened, setOpened] = useState<string | null>(null);
  const items = latest.data?.items ?? [];
  const open = opened ?? items[0]?.id;
  return (
    <Sheet className="min-w-0 self-start">
      <header className="flex items-center gap-2 border-b border-line px-4 py-3">
        <span aria-hidden className="size-2.5 animate-pulse bg-straw outline-[1.6px] outline-ink" />
        <h2 className="text-base">Listening</h2>
        <span className="text-muted">what arrives shows up here by itself</span>
      </header>
      <div aria-live="polite">
        {latest.isPending ? (
          <Loading lines={4} />
        ) : latest.isError ? (
          <Failed error={latest.error} retry={() => void latest.refetch()} />
        ) : items.length === 0 ? (
          <p className="px-4 py-8 text-center text-muted">Nothing has arrived yet.</p>
        ) : (
          items.map((submission) => (
            <Arrived
              key={submission.id}
              submission={submission}
              open={submission.id === open}
              toggle={() => setOpened(submission.id)}
            />
          ))
        )}
      </div>
    </Sheet>
  );
}

function Arrived({ submission, open, toggle }: { submission: SubmissionShape; open: boolean; toggle: () => void }) {
  const run = submission.runs[0];
  return (
    <div className={`border-b border-hair last:border-b-0 ${open ? 'bg-raised' : ''}`}>
      <button
        type="button"
        aria-expanded={open}
        onClick={toggle}
        className="flex h-9 w-full items-center gap-3 px-4 text-left hover:bg-raised"
      >
        <Mono className="flex-none text-muted">
          <Time at={submission.receivedAt} />
        </Mono>
        <span className="min-w-0 flex-1 truncate">{submission.who || submission.email || 'unknown sender'}</span>
        <span className="flex min-w-0 max-w-[60%] items-center gap-2 text-small text-muted">
          <StateShape state={stateOf(submission)} word />
          <span className="truncate">
            {run?.summary ??
              {
                waiting: 'waiting',
                routed: 'routed',
                unrouted: 'no route takes it',
                'set-aside': 'set aside',
                cancelled: 'cancelled',
              }[submission.state]}
          </span>
        </span>
      </button>
      {open && (
        <div className="px-4 pb-3">
          <PayloadFields submission={submission} />
          <Link
            to={`/submissions?intake=${submission.intake.key}&open=${submission.id}`}
            className="mt-2 inline-block text-slate underline"
          >
            What became of it
          </Link>
        </div>
      )}
    </div>
  );
}

function PayloadFields({ submission }: { submission: SubmissionShape }) {
  if (!isJsonObject(submission.payload)) return <p className="text-brick">{submission.unreadable}</p>;
  const fields = payloadFields(submission.payload);
  return (
    <dl className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-x-3">
      {fields.slice(0, 60).map(({ key, label, value }) => (
        <div key={key} className="contents">
          <dt className="truncate py-0.5">
            {label ? (
              <span className="rounded-sm bg-slate-soft px-1" title={key}>
                {label}
              </span>
            ) : (
              <Mono className="rounded-sm bg-slate-soft px-1">{key}</Mono>
            )}
          </dt>
          <dd className="truncate py-0.5" title={String(value)}>
            {value === null || value === '' ? <span className="text-faint">empty</span> : String(value)}
          </dd>
        </div>
      ))}
      {fields.length > 60 && <p className="col-span-2 text-muted">and {fields.length - 60} more fields</p>}
    </dl>
  );
}
