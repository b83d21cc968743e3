import type { IdentityReport, LookAlikeLine, ScanShape } from '@haycart/api';
import { counted, percent } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call } from '../api/client';
import { useWords } from '../api/words';
import { Button, buttonLook } from '../components/button';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { Sheet } from '../components/sheet';
import { messageOf } from '../components/status';
import { Time } from '../components/time';

/** Looking through all records: how far it is, what it found, and what can be done with that. */
export function ScanCard({ report }: { report: IdentityReport }) {
  const words = useWords();
  const client = useQueryClient();
  const [accepting, setAccepting] = useState(false);
  const { scan, kind, open } = report;
  const running = scan?.state === 'running';
  const work = useMutation({
    mutationFn: () =>
      running ? call<ScanShape>('POST', `/scans/${scan.id}/cancel`) : call<ScanShape>('POST', '/scans', { kind }),
    onSettled: () => client.invalidateQueries({ queryKey: ['identity'] }),
    onError: (error) => toast.error(messageOf(error)),
  });
  return (
    <Sheet className="flex flex-col gap-2 p-4">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="mr-auto text-base">Look-alikes</h2>
        {open > 0 && (
          <>
            <Link to="/decide" className={buttonLook('main')}>
              Decide {open === 1 ? 'one' : open.toLocaleString('en-GB')}
            </Link>
            <Button onClick={() => setAccepting(true)}>Accept the sure ones</Button>
          </>
        )}
        <Button disabled={work.isPending} onClick={() => work.mutate()}>
          {running ? 'Cancel' : 'Look through all'}
        </Button>
      </div>
      {scan ? (
        <ScanState scan={scan} />
      ) : (
        <p className="text-muted">
          All {words.many(kind)} were not looked through yet. What arrives is compared by itself.
        </p>
      )}
      {accepting && <Accepting kind={kind} close={() => setAccepting(false)} />}
    </Sheet>
  );
}

function ScanState({ scan }: { scan: ScanShape }) {
  const words = useWords();
  const share = scan.partsDone / Math.max(1, scan.parts);
  const records = words.counted(scan.records, scan.kind);
  if (scan.state === 'running')
    return (
      <div>
        <div
          role="progressbar"
          aria-label="Looking through all records"
          aria-valuenow={Math.round(share * 100)}
          className="h-2 rounded bg-hair"
        >
          <div className="h-full rounded bg-green" style={{ width: `${share * 100}%` }} />
        </div>
        <p className="mt-1 text-small text-muted">
          {Math.round(share * 100)} % of {records}, {counted(scan.found, 'pair')} found so far{left(scan, share)}. It
          goes on when you leave the page.
        </p>
      </div>
    );
  return (
    <p className="text-muted">
      {scan.state === 'done' ? 'Looked through' : 'Cancelled after a part of'} {records}: {counted(scan.pairs, 'pair')}{' '}
      compared, {scan.found.toLocaleString('en-GB')} new to decide. <Time at={scan.finishedAt ?? scan.startedAt} />, by{' '}
      {scan.by}. What arrives is compared by itself.
    </p>
  );
}

function left({ startedAt }: ScanShape, share: number): string {
  if (share < 0.05) return '';
  const seconds = ((Date.now() - Date.parse(startedAt)) / 1_000 / share) * (1 - share);
  return `, about ${seconds < 90 ? `${Math.max(1, Math.round(seconds))} s` : `${Math.round(seconds / 60)} min`} left`;
}

/** What accepting from a probability on would merge, shown before it is done. */
function Accepting({ kind, close }: { kind: IdentityReport['kind']; close: () => void }) {
  const client = useQueryClient();
  const [least, setLeast] = useState(0.98);
  const rehearsal = useQuery({
    queryKey: ['identity', kind, 'accepting', least],
    queryFn: () =>
      call<{ merged: LookAlikeLine[]; left: LookAlikeLine[] }>('POST', '/look-alikes/rehearse-accepting', {
        kind,
        least,
      }),
    placeholderData: (before) => before,
  });
  const accept = useMutation({
    mutationFn: () => call<{ merged: number }>('POST', '/look-alikes/accept', { kind, least }),
    onSuccess: async ({ merged }) => {
      close();
      toast(`${counted(merged, 'merge')} done. Each can be undone.`);
      await client.invalidateQueries();
    },
  });
  const { merged = [], left: chained = [] } = rehearsal.data ?? {};
  return (
    <Dialog
      open
      wide
      close={close}
      title="Accept the sure ones"
      description="Every pair from a probability on becomes one record, after the rules. Pairs that hang together only in a chain stay for you to decide."
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          accept.mutate();
        }}
      >
        <label className="flex items-center gap-3 font-semibold">
          From <span className="w-12 tabular-nums">{least.toFixed(3)}</span>
          <input
            type="range"
            min={0.9}
            max={1}
            step={0.005}
            value={least}
            onChange={({ target }) => setLeast(Number(target.value))}
            className="flex-1 accent-green"
          />
        </label>
        <ul aria-label="Would be merged" className="max-h-[36vh] overflow-y-auto">
          {merged.map(({ one, other, probability }) => (
            <li key={one.id + other.id} className="flex h-8 items-center gap-3 border-b border-hair">
              <span className="min-w-0 flex-1 truncate">{other.name}</span>
              <span className="text-muted">becomes part of</span>
              <span className="min-w-0 flex-1 truncate">{one.name}</span>
              <span className="w-20 text-right tabular-nums text-muted">{percent(probability)}</span>
            </li>
          ))}
        </ul>
        {!merged.length && <p className="text-muted">No pair has such a score.</p>}
        <DialogActions
          error={accept.error}
          close={close}
          action={`Merge ${counted(merged.length, 'pair')}`}
          disabled={!merged.length || accept.isPending || rehearsal.isPlaceholderData}
          note={chained.length ? `${counted(chained.length, 'pair')} left: in a chain` : undefined}
        />
      </form>
    </Dialog>
  );
}
