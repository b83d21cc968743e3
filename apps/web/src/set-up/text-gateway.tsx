import type { TextGatewayShape } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../api/client';
import { textGatewayQuery } from '../api/queries';
import { AskOnce } from '../components/ask-once';
import { Button } from '../components/button';
import { Sheet } from '../components/sheet';
import { messageOf } from '../components/status';
import { TextField } from '../components/text-field';

/** What sends text messages: an address of a provider to which they are posted. */
export function TextGateway() {
  const client = useQueryClient();
  const gateway = useQuery(textGatewayQuery).data;
  const [address, setAddress] = useState('');
  const [removing, setRemoving] = useState(false);
  const set = useMutation({
    mutationFn: (next: string) => call<TextGatewayShape>('PUT', '/text-gateway', { address: next }),
    onSuccess: async () => {
      setAddress('');
      await client.invalidateQueries({ queryKey: ['channels'] });
    },
  });
  const remove = useMutation({
    mutationFn: () => call('PUT', '/text-gateway', { address: null }),
    onSuccess: async () => {
      setRemoving(false);
      await client.invalidateQueries({ queryKey: ['channels'] });
    },
  });
  return (
    <Sheet className="p-4">
      <form
        noValidate
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (address.trim()) set.mutate(address.trim());
        }}
      >
        <h2 className="text-base">Text messages</h2>
        <p className="text-muted">
          {gateway?.host ? (
            <>
              They are sent by <b className="font-semibold text-ink">{gateway.host}</b>.
            </>
          ) : (
            'Nothing sends them yet. Type the address of a provider to which they are posted.'
          )}
        </p>
        <div className="flex flex-wrap items-end gap-2">
          <div className="min-w-60 flex-1">
            <TextField
              label={gateway?.host ? 'Another address' : 'Address of the provider'}
              type="url"
              inputMode="url"
              spellCheck={false}
              placeholder="https://texts.example/send/…"
              help='Posted there as JSON: {"to": "+44…", "text": …}. It is kept sealed, and not shown again.'
              value={address}
              error={set.isError ? messageOf(set.error) : undefined}
              onChange={({ target }) => setAddress(target.value)}
            />
          </div>
        </div>
        <div className="flex gap-2">
          <Button type="submit" disabled={!address.trim() || set.isPending}>
            Send by it
          </Button>
          {gateway?.host && (
            <Button look="danger" onClick={() => setRemoving(true)}>
              Send no text messages…
            </Button>
          )}
        </div>
      </form>
      {removing && (
        <AskOnce
          title="Send no text messages?"
          loses="The address of the provider is not kept. Text messages that wait are given up into To decide."
          action="Send none"
          doing={remove}
          close={() => setRemoving(false)}
        />
      )}
    </Sheet>
  );
}
