import type { SourceChange, TouchShape } from '@haycart/api';
import { USUAL_CHANNELS } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { sayDone } from '../components/say-done';
import { messageOf } from '../components/status';
import { TextField } from '../components/text-field';

/** Corrects the source of a touch. Channel rules do not change it afterwards. */
export function CorrectSource({ touch, close }: { touch: TouchShape; close: () => void }) {
  const client = useQueryClient();
  const [channel, setChannel] = useState(touch.channel);
  const [source, setSource] = useState(touch.source);
  const [medium, setMedium] = useState(touch.medium ?? '');
  const [campaign, setCampaign] = useState(touch.campaign ?? '');
  const told = () =>
    Promise.all([
      client.invalidateQueries({ queryKey: ['records'] }),
      client.invalidateQueries({ queryKey: ['sources'] }),
    ]);
  const takeBack = useMutation({
    mutationFn: (id: string) => call<SourceChange>('POST', `/source-changes/${id}/take-back`),
    onSuccess: told,
    onError: (error) => toast.error(messageOf(error)),
  });
  const save = useMutation({
    mutationFn: () =>
      call<SourceChange>('POST', '/source-changes/corrections', {
        visits: [touch.visit],
        channel: channel.trim(),
        source: source.trim(),
        medium: medium.trim() || null,
        campaign: campaign.trim() || null,
      }),
    onSuccess: async ({ id, text }) => {
      await told();
      sayDone(`${text}.`, { label: 'Take back', act: () => takeBack.mutate(id) });
      close();
    },
  });
  return (
    <Dialog open close={close} title="Where it came from">
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <div className="grid gap-4 sm:grid-cols-2">
          <TextField
            label="Channel"
            list="channels-of-touch"
            maxLength={200}
            value={channel}
            onChange={({ target }) => setChannel(target.value)}
          />
          <datalist id="channels-of-touch">
            {USUAL_CHANNELS.map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
          <TextField label="Source" maxLength={200} value={source} onChange={({ target }) => setSource(target.value)} />
          <TextField label="Medium" maxLength={200} value={medium} onChange={({ target }) => setMedium(target.value)} />
          <TextField
            label="Campaign"
            maxLength={200}
            value={campaign}
            onChange={({ target }) => setCampaign(target.value)}
          />
        </div>
        <DialogActions
          error={save.error}
          close={close}
          action="Save"
          disabled={!channel.trim() || !source.trim() || save.isPending}
          note="For all records that this visit touched."
        />
      </form>
    </Dialog>
  );
}
