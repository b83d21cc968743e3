import type { ProfileFieldShape } from '@haycart/api';
import { optionFor, type FieldDefinition } from '@haycart/core';
import { Plus, Wand2, X } from 'lucide-react';
import { useState } from 'react';
import { Button, IconButton } from '../components/button';
import { count } from '../components/format';

const BOX = 'h-7 min-w-0 rounded border border-line bg-raised px-1.5';

/** From the values that really came to a field’s options: counts beside, what is not in the table marked. */
export function TranslationTable({
  table,
  seen,
  field,
  change,
}: {
  table: Record<string, string>;
  /** The incoming fields that feed the value. */
  seen: readonly ProfileFieldShape[];
  field: FieldDefinition | undefined;
  change: (table: Record<string, string>) => void;
}) {
  const [typed, setTyped] = useState('');
  const counts = new Map(
    seen.flatMap(({ values }) => values.map(({ value, count: times }) => [value, times] as const)),
  );
  const known = new Set(Object.keys(table).map(folded));
  const missing = [...counts.keys()].filter((value) => !known.has(folded(value)));
  const rows = [...missing, ...Object.keys(table)];
  const options = (field?.options ?? []).filter(({ retired }) => !retired);
  const put = (value: string, option: string) => {
    const { [value]: _, ...others } = table;
    change(option === '' ? others : { ...others, [value]: option });
  };
  const guesses = missing.flatMap((value) => {
    const option = optionFor(options, value);
    return option ? [[value, option.key] as const] : [];
  });
  const add = () => {
    if (typed.trim() && !known.has(folded(typed))) put(typed.trim(), options[0]?.key ?? typed.trim());
    setTyped('');
  };
  return (
    <section aria-label="Translation table">
      {guesses.length > 0 && (
        <Button className="mb-1.5" onClick={() => change({ ...table, ...Object.fromEntries(guesses) })}>
          <Wand2 className="size-3.5" aria-hidden /> Fill in the {guesses.length} that name an option
        </Button>
      )}
      <ul className="max-h-[220px] overflow-y-auto">
        {rows.map((value) => {
          const isMissing = !Object.hasOwn(table, value);
          return (
            <li
              key={value}
              className={`grid grid-cols-[minmax(0,1fr)_44px_minmax(0,1fr)_26px] items-center gap-1.5 border-b border-hair py-1 ${isMissing ? 'bg-straw-soft/60' : ''}`}
            >
              <span className="truncate" title={isMissing ? `${value}: not in the table yet` : value}>
                {value}
              </span>
              <span className="text-right text-small text-muted" title="How often it came">
                {counts.has(value) ? count(counts.get(value)!) : 'unseen'}
              </span>
              {options.length ? (
                <select
                  aria-label={`What “${value}” becomes`}
                  className={BOX}
                  value={table[value] ?? ''}
                  onChange={({ target }) => put(value, target.value)}
                >
                  <option value="">not said</option>
                  {options.map(({ key, label }) => (
                    <option key={key} value={key}>
                      {label}
                    </option>
                  ))}
                </select>
              ) : (
                <input
                  aria-label={`What “${value}” becomes`}
                  className={BOX}
                  value={table[value] ?? ''}
                  onChange={({ target }) => put(value, target.value)}
                />
              )}
              {!isMissing && (
                <IconButton
                  label={`Take “${value}” out of the table`}
                  className="!size-6 text-muted"
                  onClick={() => put(value, '')}
                >
                  <X className="size-3.5" aria-hidden />
                </IconButton>
              )}
            </li>
          );
        })}
      </ul>
      <div className="mt-1.5 flex items-center gap-1.5">
        <input
          aria-label="A value that did not come yet"
          placeholder="a value that did not come yet"
          className={`${BOX} flex-1`}
          value={typed}
          onChange={({ target }) => setTyped(target.value)}
          onKeyDown={({ key }) => key === 'Enter' && add()}
        />
        <IconButton label="Add it to the table" onClick={add} className="!size-7 border border-line">
          <Plus className="size-3.5" aria-hidden />
        </IconButton>
      </div>
    </section>
  );
}

function folded(value: string): string {
  return value.trim().replace(/\s+/g, ' ').toLowerCase();
}
