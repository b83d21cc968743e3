import type { ConsentShape } from '@haycart/api';
import { CONSENT_CHANNELS, type ConsentChannel } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../api/client';
import { Button } from '../components/button';
import { ChannelField, channelLabel } from '../components/consent-channel';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { exactTime } from '../components/format';
import { Sheet } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { SelectField, TextField } from '../components/text-field';
import { Time } from '../components/time';

const SHAPES = { given: 'written', withdrawn: 'skipped', pending: 'held' } as const;

/** What a contact agreed to, channel by channel: the latest word holds, and all of them are kept. */
export function Consents({ contact, consents }: { contact: string; consents: readonly ConsentShape[] }) {
  const [adding, setAdding] = useState(false);
  const known = CONSENT_CHANNELS.filter((channel) => consents.some((one) => one.channel === channel));
  return (
    <Sheet className="px-4 py-3">
      <header className="mb-1 flex items-center">
        <h2 className="mr-auto text-base">Consent</h2>
        <Button className="!h-7" onClick={() => setAdding(true)}>
          Record consent
        </Button>
      </header>
      {!known.length && <p className="text-small text-muted">No consent is recorded: neither given nor withdrawn.</p>}
      <ul>
        {known.map((channel) => {
          const [latest, ...earlier] = consents.filter((one) => one.channel === channel);
          return (
            <li key={channel} className="border-b border-hair py-1.5 last:border-b-0">
              <details>
                <summary className="flex cursor-pointer items-center gap-2">
                  <StateShape state={SHAPES[latest!.state]} />
                  <b className="w-[104px] flex-none font-semibold">{channelLabel(channel)}</b>
                  <span className="min-w-0 flex-1 truncate">
                    {latest!.state === 'pending' ? 'pending, to be confirmed' : latest!.state}
                  </span>
                  <Time at={latest!.at} className="text-muted" />
                </summary>
                <ul className="mt-1 ml-6 flex flex-col gap-1.5 text-small">
                  {[latest!, ...earlier].map(({ id, state, words, place, by, at }) => (
                    <li key={id}>
                      <q className="text-ink">{words}</q>
                      <span className="block text-muted">
                        {state === 'pending' ? 'to be confirmed' : state} {place}, {exactTime(at)}, noted by {by}
                      </span>
                    </li>
                  ))}
                </ul>
              </details>
            </li>
          );
        })}
      </ul>
      {adding && <NoteDown contact={contact} close={() => setAdding(false)} />}
    </Sheet>
  );
}

function NoteDown({ contact, close }: { contact: string; close: () => void }) {
  const client = useQueryClient();
  const [channel, setChannel] = useState<ConsentChannel>('email');
  const [state, setState] = useState<'given' | 'withdrawn'>('given');
  const [words, setWords] = useState('');
  const [place, setPlace] = useState('');
  const keep = useMutation({
    mutationFn: () => call('POST', `/contacts/${contact}/consents`, { channel, state, words, place }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['records', 'sheet'] });
      close();
    },
  });
  return (
    <Dialog
      open
      close={close}
      title="Record consent"
      description="A recorded consent is never changed. A later one for the same channel counts from then on."
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate();
        }}
      >
        <div className="grid grid-cols-2 gap-3">
          <ChannelField label="Channel" channel={channel} choose={setChannel} />
          <SelectField
            label="It was"
            value={state}
            onChange={({ target }) => setState(target.value as 'given' | 'withdrawn')}
          >
            <option value="given">given</option>
            <option value="withdrawn">withdrawn</option>
          </SelectField>
        </div>
        <TextField
          label="In these words"
          placeholder="You may write to me about glasshouses"
          value={words}
          onChange={({ target }) => setWords(target.value)}
        />
        <TextField
          label="Where"
          placeholder="by phone, at the spring show"
          value={place}
          onChange={({ target }) => setPlace(target.value)}
        />
        <DialogActions
          error={keep.error}
          close={close}
          action="Record"
          disabled={keep.isPending || !words.trim() || !place.trim()}
        />
      </form>
    </Dialog>
  );
}
