import type { SubmissionShape } from '@haycart/api';
import { isJsonObject, type JsonValue } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { Button } from '../components/button';
import { messageOf } from '../components/status';
import { TextField } from '../components/text-field';
import { useDraft } from './draft';

/** Keeps the sample with what the draft does with it, so that publishing is held up when that changes. */
export function SaveCase({
  routeId,
  typed,
  sample,
}: {
  routeId: string;
  /** The text of a sample that somebody typed; null for a stored one. */
  typed: string | null;
  sample: SubmissionShape | undefined;
}) {
  const client = useQueryClient();
  const { save, value: definition } = useDraft();
  const [name, setName] = useState<string | null>(null);
  const keep = useMutation({
    mutationFn: async () => {
      await save();
      return call('POST', `/routes/${routeId}/cases`, {
        name: name!.trim(),
        ...(typed === null ? { submissionId: sample!.id } : { payload: JSON.parse(typed) as JsonValue }),
      });
    },
    onSuccess: () => {
      setName(null);
      void client.invalidateQueries({ queryKey: ['route-cases', routeId] });
      toast('The case is saved. It is checked before the route is published.');
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  if (!definition) return null;
  if (name === null)
    return (
      <button
        type="button"
        className="self-start text-slate underline"
        onClick={() => setName(sample && typed === null ? sample.who || sample.email : firstText(typed))}
      >
        This is right: save it as a case
      </button>
    );
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim()) keep.mutate();
      }}
    >
      <div className="flex-1">
        <TextField
          label="Name of the case"
          value={name}
          maxLength={200}
          autoFocus
          onChange={({ target }) => setName(target.value)}
        />
      </div>
      <Button type="submit" look="main" disabled={keep.isPending || !name.trim()}>
        Save
      </Button>
      <Button onClick={() => setName(null)}>Cancel</Button>
    </form>
  );
}

function firstText(typed: string | null): string {
  try {
    const payload = JSON.parse(typed ?? 'null') as JsonValue;
    const [first] = isJsonObject(payload) ? Object.values(payload).filter((value) => typeof value === 'string') : [];
    return (first ?? '').slice(0, 100);
  } catch {
    return '';
  }
}
