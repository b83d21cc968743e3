import type { ProfileFieldShape, ProfileShape } from '@haycart/api';
import { counted, taughtByText } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { call } from '../api/client';
import { profileQuery } from '../api/queries';
import { Button } from '../components/button';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { Mono } from '../components/sheet';
import { TextArea } from '../components/text-field';

/** Learns what fields are called from the sender’s definition of its form, or from a submission that has the questions. */
export function NamesFromDocument({ intakeKey, fields }: { intakeKey: string; fields: readonly ProfileFieldShape[] }) {
  const [open, setOpen] = useState(false);
  const unnamed = fields.filter(({ key, label }) => label === key).map(({ key }) => key);
  if (!unnamed.length) return null;
  return (
    <>
      <Button className="ml-auto" onClick={() => setOpen(true)}>
        Names from a file…
      </Button>
      <Dialog
        wide
        open={open}
        close={() => setOpen(false)}
        title="Names from a file"
        description="Paste or choose the sender’s definition of its form, or an older submission with the questions in it, as JSON, or a table of ids and questions as CSV. What has an id and a question beside it gives the fields their names."
      >
        {open && <Names intakeKey={intakeKey} unnamed={unnamed} close={() => setOpen(false)} />}
      </Dialog>
    </>
  );
}

function Names({ intakeKey, unnamed, close }: { intakeKey: string; unnamed: string[]; close: () => void }) {
  const client = useQueryClient();
  const [text, setText] = useState('');
  const found = useMemo(() => taughtByText(text, unnamed), [text, unnamed]);
  const names = Object.entries(found ?? {});
  const keep = useMutation({
    mutationFn: () =>
      call<ProfileShape>('PUT', `/intakes/${encodeURIComponent(intakeKey)}/profile/names`, { names: found }),
    onSuccess: (profile) => {
      client.setQueryData(profileQuery(intakeKey).queryKey, profile);
      close();
    },
  });
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate();
      }}
    >
      <TextArea
        label="The document"
        rows={8}
        spellCheck={false}
        value={text}
        onChange={({ target }) => setText(target.value)}
        className="font-mono text-[12px] leading-[17px]"
        error={text.trim() !== '' && found === null ? 'This is no JSON and no table of two columns yet.' : undefined}
      />
      <input
        type="file"
        aria-label="Choose a file"
        accept=".json,.csv,.tsv,.txt,application/json,text/csv"
        onChange={({ target }) => void target.files?.[0]?.text().then(setText)}
      />
      {found !== null && (
        <section aria-label="Names found" role="status">
          <p className="mb-1 text-muted">
            {counted(names.length, 'name')} for {counted(unnamed.length, 'field')} without one
          </p>
          <dl className="max-h-[220px] overflow-y-auto">
            {names.map(([key, name]) => (
              <div key={key} className="grid grid-cols-2 gap-3 border-b border-hair py-1">
                <dt className="truncate">
                  <Mono>{key}</Mono>
                </dt>
                <dd className="truncate">{name}</dd>
              </div>
            ))}
          </dl>
        </section>
      )}
      <DialogActions
        error={keep.error}
        close={close}
        action={names.length ? `Keep ${counted(names.length, 'name')}` : 'Keep the names'}
        disabled={!names.length || keep.isPending}
      />
    </form>
  );
}
