import type { Destination, Write } from '@haycart/core';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { PickFields } from '../components/pick-fields';
import { Popover } from '../components/popover';
import { TextField } from '../components/text-field';
import { feedFields } from './draft';

/** Adds fields that are not fed yet. */
export function AddField({
  write,
  destination,
  hidden,
}: {
  write: Write;
  destination: Destination;
  hidden: readonly string[];
}) {
  const [open, setOpen] = useState(false);
  const [find, setFind] = useState('');
  const fed = new Set([...write.fills.map(({ field }) => field), ...hidden]);
  const free = destination.fields.filter(({ record, key, kept }) => record === write.record && !kept && !fed.has(key));
  const found = free.filter(({ label }) => label.toLowerCase().includes(find.trim().toLowerCase()));
  if (!free.length) return null;
  return (
    <Popover
      label={`Feed other fields of the ${write.record}`}
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button
          type="button"
          aria-label={`Feed another field of the ${write.record}`}
          className="flex h-9 items-center gap-1 px-2.5 text-muted hover:text-ink"
        >
          <Plus className="size-3.5" aria-hidden /> feed another field
        </button>
      }
    >
      <TextField label="Find a field" value={find} autoFocus onChange={({ target }) => setFind(target.value)} />
      <PickFields
        fields={found}
        verb="Feed"
        take={(fields) => {
          feedFields(
            write.as,
            fields.map(({ key }) => key),
          );
          setOpen(false);
          setFind('');
        }}
      />
      {!found.length && <p className="mt-3 text-small text-muted">No unmapped field has this name.</p>}
    </Popover>
  );
}
