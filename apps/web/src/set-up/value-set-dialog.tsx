import type { ValueSetShape } from '@haycart/api';
import { cleanValues, counted } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiError, call } from '../api/client';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { TextArea, TextField } from '../components/text-field';

/** A new value set, or another name or other values for one. */
export function ValueSetDialog({ set, close }: { set: ValueSetShape | null; close: () => void }) {
  const client = useQueryClient();
  const [name, setName] = useState(set?.name ?? '');
  const [lines, setLines] = useState(set?.values.join('\n') ?? '');
  const values = cleanValues(lines.split('\n'));
  const save = useMutation({
    mutationFn: () =>
      set
        ? call('PATCH', `/value-sets/${set.key}`, { name: name.trim(), values })
        : call('POST', '/value-sets', { name: name.trim(), values }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['labels'] });
      close();
    },
  });
  const wrong = save.error instanceof ApiError ? (save.error.problem.errors ?? []) : [];
  return (
    <Dialog open close={close} title={set ? set.name : 'New value set'}>
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
          placeholder="North"
          value={name}
          error={wrong.find(({ at }) => at === '/name')?.message}
          onChange={({ target }) => setName(target.value)}
        />
        <TextArea
          label="Values, one a line"
          rows={10}
          spellCheck={false}
          placeholder={'NL\nDE 40-49\nGB EH'}
          help={`${counted(values.length, 'value')}. For regions: a country, with or without postal codes, such as DE 40-49.`}
          value={lines}
          error={wrong.find(({ at }) => at.startsWith('/values'))?.message}
          onChange={({ target }) => setLines(target.value)}
        />
        <DialogActions
          error={wrong.length ? null : save.error}
          close={close}
          action={set ? 'Save' : 'Add'}
          disabled={!name.trim() || save.isPending}
        />
      </form>
    </Dialog>
  );
}
