import type { Question } from '@haycart/core';
import { Plus, X } from 'lucide-react';
import { Button, IconButton } from '../components/button';
import { BOX } from './row';

/** The options of a question: its own, or those of the field that it follows, with words of its own for them. */
export function QuestionOptions({
  question,
  shown,
  follows,
  change,
}: {
  question: Question;
  shown: Question;
  follows: boolean;
  change: (part: Partial<Question>) => void;
}) {
  const options = shown.options ?? [];
  const rename = (value: string, label: string) => {
    const own = follows ? (question.options ?? []).filter((one) => one.value !== value) : options;
    change({
      options: follows
        ? label
          ? [...own, { value, label }]
          : own.length
            ? own
            : undefined
        : own.map((one) => (one.value === value ? { value, label } : one)),
    });
  };
  const add = () => {
    let n = options.length + 1;
    while (options.some(({ value }) => value === `option-${n}`)) n += 1;
    change({ options: [...options, { value: `option-${n}`, label: `Option ${n}` }] });
  };
  return (
    <div className="flex flex-col gap-1">
      {options.map(({ value, label }, index) => (
        <span key={value} className="flex gap-1">
          <input
            aria-label={`Words of option ${index + 1}`}
            className={BOX}
            value={label}
            onChange={({ target }) => rename(value, target.value)}
          />
          {!follows && options.length > 1 && (
            <IconButton
              label={`Remove ${label}`}
              className="text-muted"
              onClick={() => change({ options: options.filter((one) => one.value !== value) })}
            >
              <X className="size-3.5" aria-hidden />
            </IconButton>
          )}
        </span>
      ))}
      {follows ? (
        <p className="text-small text-muted">The options are those of the field.</p>
      ) : (
        <Button className="self-start" onClick={add}>
          <Plus className="size-3.5" aria-hidden /> Option
        </Button>
      )}
    </div>
  );
}
