import type { RouteShape } from '@haycart/api';
import { counted } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { TextField } from '../components/text-field';
import { ManyResult } from './many-result';
import { useComparison } from './use-comparison';

/** The follow-ups that send something. */
const SENDING: ReadonlySet<string> = new Set(['message', 'mail', 'post']);
const BEGINNING = '1970-01-01T00:00:00.000Z';

/** Routes what came before the route was there or while it was paused: a period is chosen and rehearsed first. */
export function CatchUp({ route, close }: { route: RouteShape; close: () => void }) {
  const client = useQueryClient();
  const [since, setSince] = useState('');
  const [send, setSend] = useState(false);
  const sends = route.published?.followUps?.some(({ do: kind }) => SENDING.has(kind)) ?? false;
  const period = { since: since ? new Date(since).toISOString() : BEGINNING, before: useNow() };
  const missed = useQuery({
    queryKey: ['submissions', 'missed', route.id, since],
    queryFn: () => countMissed(route.id, period),
  }).data;
  const rehearsal = useComparison(route.id);
  const run = useMutation({
    mutationFn: () => call<{ queued: number }>('POST', `/routes/${route.id}/catch-up`, { ...period, send }),
    onSuccess: ({ queued }) => {
      void client.invalidateQueries({ queryKey: ['submissions'] });
      toast.success(`${counted(queued, 'submission')} on the way through “${route.name}”.`);
      close();
    },
  });
  return (
    <Dialog
      open
      close={close}
      title="Process missed submissions"
      description={`Submissions that “${route.name}” has not run are routed by version ${route.version}; what other routes did stays.`}
    >
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          run.mutate();
        }}
      >
        <TextField
          label="Arrived since"
          type="date"
          help="Leave it blank for all that ever arrived."
          value={since}
          onChange={({ target }) => setSince(target.value)}
        />
        {missed !== undefined && (
          <p role="status">
            {missed ? `${counted(missed, 'submission')} not run by it yet.` : 'It missed nothing in this time.'}
          </p>
        )}
        {missed ? (
          rehearsal.found ? (
            <ManyResult found={rehearsal.found} cancel={rehearsal.cancel} />
          ) : (
            <button
              type="button"
              className="self-start text-slate underline"
              onClick={() => rehearsal.begin({ after: route.version!, since: period.since, last: 10_000 })}
            >
              Rehearse the period first
            </button>
          )
        ) : null}
        {sends && (
          <label className="flex items-start gap-2">
            <input
              type="checkbox"
              className="mt-0.5 size-4 flex-none accent-green"
              checked={send}
              onChange={({ target }) => setSend(target.checked)}
            />
            <span>
              Send messages, mails and posts of these too
              <span className="block text-small text-muted">
                Otherwise they stand in the outbox, unsent. Tasks and notes are made either way.
              </span>
            </span>
          </label>
        )}
        <DialogActions
          error={run.error}
          close={close}
          action={`Route ${counted(missed ?? 0, 'submission')}`}
          disabled={!missed || run.isPending}
        />
      </form>
    </Dialog>
  );
}

/** How many submissions that arrived before a route went live it has not run. */
export function countEarlier(route: string): Promise<number> {
  return countMissed(route, { since: BEGINNING, before: new Date().toISOString() });
}

async function countMissed(route: string, period: { since: string; before: string }): Promise<number> {
  return (await call<{ missed: number }>('POST', `/routes/${route}/catch-up/count`, period)).missed;
}

/** The moment at which a dialog was opened. */
function useNow(): string {
  return useState(() => new Date().toISOString())[0];
}
