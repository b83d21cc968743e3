import type { DecisionView } from '@haycart/api';
import { useRef, useState } from 'react';
import { usePageKeys } from '../components/list-keys';
import { Key, Sheet } from '../components/sheet';

/** So many options are shown at once; the others are found by typing. */
const SHOWN = 60;
const NUMBERED = 9;

/** The options that a new answer may mean: by number, by click, or found by typing. */
export function AnswerChoice({
  answer: { options, label },
  choose,
}: {
  answer: Extract<DecisionView, { as: 'answer' }>;
  choose: (option: string) => void;
}) {
  const [text, setText] = useState('');
  const input = useRef<HTMLInputElement>(null);
  const wanted = text.trim().toLowerCase();
  const fitting = options.filter(({ label: name, aliases = [] }) =>
    [name, ...aliases].some((one) => one.toLowerCase().includes(wanted)),
  );
  usePageKeys({
    '/': () => input.current?.focus(),
    ...Object.fromEntries(fitting.slice(0, NUMBERED).map(({ key }, index) => [String(index + 1), () => choose(key)])),
  });
  return (
    <Sheet className="flex flex-col gap-2 p-3.5">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-base">{label} is</h2>
        {options.length > NUMBERED && (
          <label className="flex items-center gap-2 text-small text-muted">
            <input
              ref={input}
              value={text}
              onChange={({ target }) => setText(target.value)}
              onKeyDown={({ key }) => {
                if (key === 'Enter' && fitting[0]) choose(fitting[0].key);
                if (key === 'Escape') input.current?.blur();
              }}
              aria-label="Find an option"
              placeholder="Find an option"
              className="h-8 w-[220px] rounded border border-line bg-raised px-2.5 text-ink"
            />
            <Key>/</Key>
          </label>
        )}
      </div>
      <ul aria-label={`Options of ${label}`} className="flex flex-wrap gap-2">
        {fitting.slice(0, SHOWN).map(({ key, label: name }, index) => (
          <li key={key}>
            <button
              type="button"
              onClick={() => choose(key)}
              className="inline-flex h-8 items-center gap-2 rounded border border-line bg-raised px-2.5 hover:border-muted"
            >
              {name} {index < NUMBERED && <Key>{index + 1}</Key>}
            </button>
          </li>
        ))}
      </ul>
      {fitting.length > SHOWN && (
        <p className="text-small text-muted">{fitting.length - SHOWN} more. Type to find one.</p>
      )}
      {!fitting.length && <p className="text-small text-muted">No option matches.</p>}
    </Sheet>
  );
}
