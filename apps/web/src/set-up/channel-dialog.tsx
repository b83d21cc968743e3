import type { ChannelShape } from '@haycart/api';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiError, call } from '../api/client';
import { Dialog } from '../components/dialog';
import { numberOrNull, PerMinuteField } from './per-minute-field';
import { DialogActions } from '../components/dialog-actions';
import { HoursField, TimeZoneField } from '../components/hours-field';
import { SelectField, TextField } from '../components/text-field';

/** A new channel, or another name or address for one. */
export function ChannelDialog({ channel, close }: { channel: ChannelShape | null; close: () => void }) {
  const client = useQueryClient();
  const [name, setName] = useState(channel?.name ?? '');
  const [by, setBy] = useState(channel?.by ?? 'chat');
  const [reached, setReached] = useState('');
  const [timeZone, setTimeZone] = useState(channel?.timeZone ?? null);
  const [hours, setHours] = useState(channel?.hours ?? {});
  const [perMinute, setPerMinute] = useState(String(channel?.perMinute ?? ''));
  const field = by === 'chat' ? 'address' : 'number';
  const save = useMutation({
    mutationFn: () => {
      const own = {
        timeZone,
        hours,
        perMinute: numberOrNull(perMinute),
        ...(reached.trim() ? { [field]: reached.trim() } : {}),
      };
      return channel
        ? call('PATCH', `/channels/${channel.key}`, { name: name.trim(), ...own })
        : call('POST', '/channels', { name: name.trim(), by, ...own });
    },
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['channels'] });
      await client.invalidateQueries({ queryKey: ['any'] });
      close();
    },
  });
  const wrong = save.error instanceof ApiError ? (save.error.problem.errors ?? []) : [];
  const errorAt = (at: string) => wrong.find((one) => one.at === at)?.message;
  return (
    <Dialog open close={close} title={channel ? channel.name : 'New channel'}>
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <TextField
          label="Name"
          placeholder="Care desk"
          value={name}
          error={errorAt('/name')}
          onChange={({ target }) => setName(target.value)}
        />
        {!channel && (
          <SelectField label="Told by" value={by} onChange={({ target }) => setBy(target.value as typeof by)}>
            <option value="chat">chat</option>
            <option value="text">text message</option>
          </SelectField>
        )}
        {by === 'chat' ? (
          <TextField
            label={channel ? 'Another address' : 'Incoming address of the chat'}
            type="url"
            inputMode="url"
            spellCheck={false}
            placeholder={channel ? `now at ${channel.to}` : 'https://chat.example/incoming/…'}
            help='Messages are posted there as JSON: {"text": …}. It is kept sealed, and not shown again.'
            value={reached}
            error={errorAt('/address')}
            onChange={({ target }) => setReached(target.value)}
          />
        ) : (
          <TextField
            label={channel ? 'Another number' : 'Number'}
            inputMode="tel"
            placeholder={channel ? `now ${channel.to}` : '+44 20 7946 0018'}
            value={reached}
            error={errorAt('/number')}
            onChange={({ target }) => setReached(target.value)}
          />
        )}
        <PerMinuteField value={perMinute} error={errorAt('/perMinute')} change={setPerMinute} />
        <details open={Object.keys(channel?.hours ?? {}).length > 0}>
          <summary className="cursor-pointer font-semibold">When somebody reads it</summary>
          <div className="mt-2 flex flex-col gap-3">
            <HoursField
              legend="Hours"
              without="For messages that wait for working hours. Without any: Monday to Friday, 9 to 5."
              hours={hours}
              error={wrong.find((one) => one.at.startsWith('/hours'))?.message}
              change={setHours}
            />
            <TimeZoneField timeZone={timeZone} error={errorAt('/timeZone')} change={setTimeZone} />
          </div>
        </details>
        <DialogActions
          error={wrong.length ? null : save.error}
          close={close}
          action={channel ? 'Save' : 'Add'}
          disabled={!name.trim() || (!channel && !reached.trim()) || save.isPending}
        />
      </form>
    </Dialog>
  );
}
