import type { SubmissionShape } from '@haycart/api';
import { counted } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import type { SubmissionFilter } from '../api/queries';
import { Button } from '../components/button';
import { messageOf } from '../components/status';
import { TakeBackDialog } from '../components/take-back';

/** What is done with several submissions at once: released, run again, or what they wrote taken back. */
export function RunManyAgain({
  chosen,
  rows,
  filter,
  total,
  clear,
}: {
  chosen: ReadonlySet<string>;
  rows: readonly SubmissionShape[];
  filter: SubmissionFilter;
  total: number | undefined;
  clear: () => void;
}) {
  const client = useQueryClient();
  const [takingBack, setTakingBack] = useState(false);
  const run = useMutation({
    mutationFn: (wish: object) => call<{ queued: number }>('POST', '/submissions/run-again', wish),
    onSuccess: ({ queued }) => {
      clear();
      void client.invalidateQueries({ queryKey: ['submissions'] });
      toast.success(`${counted(queued, 'submission')} on the way, as if just arrived.`);
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  const ticked = rows.filter(({ id }) => chosen.has(id));
  const ids = ticked.filter(mayRunAgain).map(({ id }) => id);
  const runs = ticked
    .flatMap((submission) => submission.runs)
    .filter(({ outcome, route }) => outcome === 'written' && (!filter.route || route.id === filter.route))
    .map(({ id }) => id);
  // Releasing what is suspicious is said of each.
  const all = total !== undefined && total > chosen.size && ['failed', 'held'].includes(filter.outcome ?? '');
  return (
    <div role="toolbar" aria-label="What to do with the chosen" className="mb-2 flex flex-wrap items-center gap-2">
      <b>{chosen.size} chosen</b>
      {ids.length > 0 && (
        <Button look="main" className="!h-7" disabled={run.isPending} onClick={() => run.mutate({ ids })}>
          {filter.outcome === 'set-aside' ? 'Release them' : `Run ${counted(ids.length, 'submission')} again`}
        </Button>
      )}
      {all && (
        <Button className="!h-7" disabled={run.isPending} onClick={() => run.mutate({ filter })}>
          Run all {total.toLocaleString('en-GB')} again
        </Button>
      )}
      {runs.length > 0 && (
        <Button className="!h-7" onClick={() => setTakingBack(true)}>
          Take back {counted(runs.length, 'run')}…
        </Button>
      )}
      {ids.length + runs.length === 0 && (
        <span className="text-muted">None of these can be run again or taken back.</span>
      )}
      <Button className="!h-7" onClick={clear}>
        Choose none
      </Button>
      {takingBack && (
        <TakeBackDialog
          title={`Take back what ${counted(runs.length, 'run')} wrote`}
          choice={{ runs }}
          close={() => {
            setTakingBack(false);
            clear();
          }}
        />
      )}
    </div>
  );
}

/** Whether it waits for somebody to have it go on. */
function mayRunAgain({ state, runs }: SubmissionShape): boolean {
  return state === 'set-aside' || runs.some(({ outcome }) => outcome === 'failed' || outcome === 'held');
}
