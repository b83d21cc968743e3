import type { MergeShape, RecordShape, UnmergeRehearsal } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { mergesQuery } from '../api/queries';
import { useWords } from '../api/words';
import { Button } from '../components/button';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { recordNumber } from '../components/format';
import { Mono, Sheet } from '../components/sheet';
import { Failed, Loading } from '../components/status';
import { SelectField } from '../components/text-field';
import { Time } from '../components/time';

/** The records that became part of this one, each to be taken apart again. */
export function Merged({ record }: { record: RecordShape }) {
  const merges = useQuery(mergesQuery(record.id));
  const [apart, setApart] = useState<MergeShape | null>(null);
  const own = (merges.data ?? []).filter(({ undone, survivor }) => !undone && survivor?.id === record.id);
  if (!own.length) return null;
  return (
    <Sheet className="px-4 py-3">
      <h2 className="mb-1 text-base">Merged</h2>
      <ul>
        {own.map((merge) => (
          <li key={merge.id} className="flex items-center gap-3 border-b border-hair py-1 last:border-b-0">
            <span className="min-w-0 flex-1 truncate">{merge.absorbed.name}</span>
            <Mono className="text-muted">{recordNumber(merge.kind, merge.absorbed.number)}</Mono>
            <span className="max-w-[160px] truncate text-small text-muted">by {merge.by}</span>
            <Time at={merge.at} className="text-muted" />
            <Button className="!h-7" onClick={() => setApart(merge)}>
              Take apart
            </Button>
          </li>
        ))}
      </ul>
      {apart && <TakeApart merge={apart} close={() => setApart(null)} />}
    </Sheet>
  );
}

/** What taking a merge apart does: both records as they would be, and to whom goes what came since. */
export function TakeApart({ merge, close }: { merge: MergeShape; close: () => void }) {
  const words = useWords();
  const client = useQueryClient();
  const [goes, setGoes] = useState<Readonly<Record<string, string>>>({});
  const rehearsal = useQuery({
    queryKey: ['records', 'unmerge', merge.id, goes],
    queryFn: () => call<UnmergeRehearsal>('POST', `/merges/${merge.id}/rehearse-undoing`, { goes }),
    placeholderData: (before) => before,
    retry: false,
  });
  const undo = useMutation({
    mutationFn: () => call('POST', `/merges/${merge.id}/undo`, { goes }),
    onSuccess: async () => {
      close();
      toast(`They are two ${words.many(merge.kind)} again.`);
      await client.invalidateQueries();
    },
  });
  const open = rehearsal.data?.since.filter(({ to }) => to === null).length ?? 0;
  return (
    <Dialog
      open
      wide
      close={close}
      title={`Take ${merge.absorbed.name} apart again`}
      description="Both come back as they were. What came since goes to the one that it belongs to."
    >
      {rehearsal.isPending && <Loading />}
      {rehearsal.isError && <Failed error={rehearsal.error} retry={() => void rehearsal.refetch()} />}
      {rehearsal.data && (
        <form
          className="flex flex-col gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            undo.mutate();
          }}
        >
          {rehearsal.data.since.length > 0 && (
            <ul aria-label="What came since" className="flex flex-col">
              {rehearsal.data.since.map(({ id, text, at, to }) => (
                <li key={id} className="flex flex-wrap items-center gap-3 border-b border-hair py-1.5">
                  <span className="min-w-[24ch] flex-1">
                    {text} <Time at={at} className="text-muted" />
                  </span>
                  <SelectField
                    label={`To whom goes: ${text}`}
                    hideLabel
                    value={to ?? ''}
                    onChange={({ target }) => setGoes((before) => ({ ...before, [id]: target.value }))}
                    error={to === null ? 'Say to which of the two.' : undefined}
                  >
                    {to === null && <option value="">Choose</option>}
                    {rehearsal.data.records.map((side) => (
                      <option key={side.id} value={side.id}>
                        {recordNumber(merge.kind, side.number)} {side.name}
                      </option>
                    ))}
                  </SelectField>
                </li>
              ))}
            </ul>
          )}
          <div className="grid gap-4 sm:grid-cols-2">
            {rehearsal.data.records.map(({ id, number, name, texts }) => (
              <section key={id} className="rounded border border-line bg-raised p-3">
                <h3 className="mb-1 text-base">
                  {name} <Mono className="text-muted">{recordNumber(merge.kind, number)}</Mono>
                </h3>
                <dl className="grid grid-cols-[104px_minmax(0,1fr)] gap-x-2 gap-y-0.5 text-small">
                  {texts.map(({ label, text }) => (
                    <div key={label} className="contents">
                      <dt className="text-muted">{label}</dt>
                      <dd className="[overflow-wrap:anywhere]">{text}</dd>
                    </div>
                  ))}
                </dl>
              </section>
            ))}
          </div>
          <DialogActions
            error={undo.error}
            close={close}
            action="Take apart"
            disabled={undo.isPending || open > 0}
            note="They are not asked about again."
          />
        </form>
      )}
    </Dialog>
  );
}
