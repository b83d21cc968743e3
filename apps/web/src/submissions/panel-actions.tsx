import type { RunLine, SubmissionDetail } from '@haycart/api';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { RotateCw, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call } from '../api/client';
import { Button, buttonLook } from '../components/button';
import { messageOf } from '../components/status';
import { TakeBackDialog } from '../components/take-back';

/** What can be done with a submission and its run, as they stand. */
export function PanelActions({ submission, run }: { submission: SubmissionDetail; run: RunLine | undefined }) {
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
