import type { Destination, Write } from '@haycart/core';
import { changeFill } from './draft';

/** Adds a field that is not fed yet. */
export function AddField({
  write,
  destination,
  hidden,
}: {
  write: Write;
  destination: Destination;
  hidden: readonly string[];
}) {
  const fed = new Set([...write.fills.map(({ field }) => field), ...hidden]);
  const free = destination.fields.filter(({ record, key, kept }) => record === write.record && !kept && !fed.has(key));
  if (!free.length) return null;
  return (
    <label className="flex h-9 items-center gap-2 px-2.5 text-muted">
      <span className="sr-only">Feed another field of the {write.record}</span>
      <select
        value=""
        onChange={({ target }) => changeFill(write.as, target.value, (fill) => fill)}
        className="cursor-pointer rounded border border-transparent bg-transparent hover:border-line"
      >
        <option value="">+ feed another field</option>
        {free.map(({ key, label }) => (
          <option key={key} value={key}>
            {label}
          </option>
        ))}
      </select>
    </label>
  );
}
