import type { FieldDefinition } from '@haycart/core';
import { useState } from 'react';
import { useWords } from '../api/words';
import { Button } from './button';

/** Fields to take: one by its name at once, or several by their boxes together. */
export function PickFields<Field extends FieldDefinition>({
  fields,
  take,
  verb,
}: {
  fields: readonly Field[];
  /** In the order in which they were ticked. */
  take: (fields: readonly Field[]) => void;
  /** What is done with them, such as `Feed`. */
  verb: string;
}) {
  const words = useWords();
  const [ticked, setTicked] = useState<readonly Field[]>([]);
  const same = (one: Field) => (other: Field) => other.record === one.record && other.key === one.key;
  const tick = (field: Field) =>
    setTicked(ticked.some(same(field)) ? ticked.filter((one) => !same(field)(one)) : [...ticked, field]);
  const records = [...new Set(fields.map(({ record }) => record))];
  return (
    <>
      {records.map((record) => (
        <section key={record} aria-label={words.One(record)} className="mt-3">
          {records.length > 1 && <h3 className="text-small text-muted">{words.One(record)}</h3>}
          {fields
            .filter((field) => field.record === record)
            .map((field) => (
              <span key={field.key} className="flex items-center gap-1">
                <input
                  type="checkbox"
                  aria-label={`${verb} ${field.label} too${records.length > 1 ? `, ${words.one(record)}` : ''}`}
                  className="size-4 flex-none cursor-pointer accent-green"
                  checked={ticked.some(same(field))}
                  onChange={() => tick(field)}
                />
                <button
                  type="button"
                  onClick={() => take([...ticked.filter((one) => !same(field)(one)), field])}
                  className="block min-w-0 flex-1 truncate rounded px-2 py-1 text-left hover:bg-straw-soft"
                >
                  {field.label}
                </button>
              </span>
            ))}
        </section>
      ))}
      {ticked.length > 0 && (
        <div className="sticky -bottom-3 z-10 -mx-3 -mb-3 mt-3 border-t border-line bg-raised p-3">
          <Button look="main" onClick={() => take(ticked)}>
            {ticked.length === 1 ? `${verb} ${ticked[0]!.label}` : `${verb} these ${ticked.length} fields`}
          </Button>
        </div>
      )}
    </>
  );
}
