import type { LabelShape } from '@haycart/api';
import { COLOUR_MARKS, type ColourMark as Mark } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { call } from '../api/client';
import { Button } from './button';
import { ColourMark } from './colour-mark';
import { messageOf } from './status';

const ONE = { tags: 'tag', lists: 'list' } as const;

/** Makes a tag or a list where one is chosen, with its mark. */
export function NewMark({
  kind,
  known,
  made,
}: {
  kind: 'tags' | 'lists';
  /** How many there are; the first mark offered is one that few have. */
  known: number;
  made: (key: string) => void;
}) {
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [colour, setColour] = useState<Mark>(COLOUR_MARKS[known % COLOUR_MARKS.length]!);
  const client = useQueryClient();
  const make = useMutation({
    mutationFn: () => call<LabelShape>('POST', `/${kind}`, { name: name.trim(), colour }),
    onSuccess: async ({ key }) => {
      void client.invalidateQueries({ queryKey: ['labels'] });
      await client.invalidateQueries({ queryKey: ['fields'] });
      setName('');
      setOpen(false);
      made(key);
    },
  });
  const one = ONE[kind];
  if (!open)
    return (
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="mt-1 inline-flex items-center gap-1 text-small text-slate hover:underline"
      >
        <Plus className="size-3.5" aria-hidden /> New {one}
      </button>
    );
  return (
    <div className="mt-1.5 flex flex-col gap-1.5">
      <div className="flex gap-1.5">
        <input
          autoFocus
          aria-label={`Name of the new ${one}`}
          placeholder={`New ${one}`}
          maxLength={100}
          value={name}
          onChange={({ target }) => setName(target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            // It stands inside a form that is not to be sent yet.
            event.preventDefault();
            if (name.trim()) make.mutate();
          }}
          className="h-8 min-w-0 flex-1 rounded border border-faint bg-raised px-2"
        />
        <Button onClick={() => make.mutate()} disabled={!name.trim() || make.isPending}>
          Make it
        </Button>
      </div>
      <div role="radiogroup" aria-label={`Mark of the new ${one}`} className="flex gap-1">
        {COLOUR_MARKS.map((mark) => (
          <label key={mark} title={mark} className="cursor-pointer">
            <input
              type="radio"
              name={`mark of ${kind}`}
              aria-label={mark}
              className="peer sr-only"
              checked={colour === mark}
              onChange={() => setColour(mark)}
            />
            <span className="flex size-6 items-center justify-center rounded border border-transparent peer-checked:border-ink peer-focus-visible:outline-2">
              <ColourMark colour={mark} />
            </span>
          </label>
        ))}
      </div>
      {make.isError && (
        <p role="alert" className="text-small text-brick">
          {messageOf(make.error)}
        </p>
      )}
    </div>
  );
}
