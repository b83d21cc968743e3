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

/** The outcomes of which several submissions can be acted upon at once. */
export const ACTED_UPON: readonly string[] = ['set-aside', 'failed', 'held', 'written'];

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
  const written = filter.outcome === 'written';
  const runs = rows
    .filter(({ id }) => chosen.has(id))
    .flatMap((submission) =>
      submission.runs.filter(
        ({ outcome, route }) => outcome === 'written' && (!filter.route || route.id === filter.route),
      ),
    )
    .map(({ id }) => id);
  const all = total !== undefined && total > chosen.size;
  return (
    <div role="toolbar" aria-label="What to do with the chosen" className="mb-2 flex flex-wrap items-center gap-2">
      <b>{chosen.size} chosen</b>
      {written ? (
        <Button look="main" className="!h-7" onClick={() => setTakingBack(true)}>
          Take back…
        </Button>
      ) : (
        <>
          <Button
            look="main"
            className="!h-7"
            disabled={run.isPending}
            onClick={() => run.mutate({ ids: [...chosen] })}
          >
            {filter.outcome === 'set-aside' ? 'Release them' : 'Run them again'}
          </Button>
          {all && filter.outcome !== 'set-aside' && (
            <Button className="!h-7" disabled={run.isPending} onClick={() => run.mutate({ filter })}>
              Run all {total.toLocaleString('en-GB')} again
            </Button>
          )}
        </>
      )}
      <Button className="!h-7" onClick={clear}>
        Choose none
      </Button>
      {takingBack && (
        <TakeBackDialog
          title={`Take back what ${counted(chosen.size, 'submission')} wrote`}
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
