import {
  listLines,
  nextOption,
  optionsFromLines,
  type AnswerOption,
  type FieldDefinition,
  type Question,
} from '@haycart/core';
import { Plus, X } from 'lucide-react';
import { useState, type ClipboardEvent } from 'react';
import { Button, IconButton } from '../components/button';
import { OptionsDialog } from '../components/options-dialog';
import { BOX } from './row';

interface OptionsProps {
  question: Question;
  shown: Question;
  change: (part: Partial<Question>) => void;
}

/** The options of a question: its own, or those of the field that it follows, with words of its own for them. */
export function QuestionOptions({ field, ...props }: OptionsProps & { field: FieldDefinition | undefined }) {
  return field ? <FieldOptions field={field} {...props} /> : <OwnOptions {...props} />;
}

/** What the options of a field are called in this form; which there are is changed for the field as a whole. */
function FieldOptions({ field, question, shown, change }: OptionsProps & { field: FieldDefinition }) {
  const [changing, setChanging] = useState(false);
  const rename = (value: string, label: string) => {
    const others = (question.options ?? []).filter((one) => one.value !== value);
    const own = label ? [...others, { value, label }] : others;
    change({ options: own.length ? own : undefined });
  };
  return (
    <div className="flex flex-col gap-1">
      {(shown.options ?? []).map(({ value, label }, index) => (
        <Words key={value} index={index} label={label} change={(words) => rename(value, words)} />
      ))}
      <p className="text-small text-muted">
        The options are those of the field.{' '}
        {!field.builtIn && (
          <button type="button" className="text-slate hover:underline" onClick={() => setChanging(true)}>
            Change the field’s options
          </button>
        )}
      </p>
      {changing && <OptionsDialog field={field} close={() => setChanging(false)} />}
    </div>
  );
}

function OwnOptions({ shown: { options = [] }, change }: OptionsProps) {
  const [asLines, setAsLines] = useState<string | null>(null);
  const set = (next: AnswerOption[]) => {
    if (next.length) change({ options: next });
  };
  const labels = options.map(({ label }) => label);
  const type = (text: string) => {
    setAsLines(text);
    set(optionsFromLines(listLines(text), options));
  };
  const paste = (event: ClipboardEvent, index: number) => {
    const pasted = listLines(event.clipboardData.getData('text'));
    if (pasted.length < 2) return;
    event.preventDefault();
    const before = labels.slice(0, labels[index] ? index + 1 : index);
    set(optionsFromLines([...new Set([...before, ...pasted, ...labels.slice(index + 1)])], options));
  };
  if (asLines !== null)
    return (
      <div className="flex flex-col gap-1">
        <textarea
          aria-label="Options, one on each line"
          rows={Math.min(12, Math.max(4, options.length + 1))}
          className={`${BOX} h-auto py-1`}
          value={asLines}
          onChange={({ target }) => type(target.value)}
        />
        <Button className="self-start" onClick={() => setAsLines(null)}>
          One by one
        </Button>
      </div>
    );
  return (
    <div className="flex flex-col gap-1">
      {options.map(({ value, label }, index) => (
        <span key={value} className="flex gap-1">
          <Words
            index={index}
            label={label}
            change={(words) => set(options.map((one) => (one.value === value ? { value, label: words } : one)))}
            paste={(event) => paste(event, index)}
          />
          {options.length > 1 && (
            <IconButton
              label={`Remove ${label}`}
              className="text-muted"
              onClick={() => set(options.filter((one) => one.value !== value))}
            >
              <X className="size-3.5" aria-hidden />
            </IconButton>
          )}
        </span>
      ))}
      <span className="flex gap-2">
        <Button onClick={() => set([...options, nextOption(options)])}>
          <Plus className="size-3.5" aria-hidden /> Option
        </Button>
        <Button onClick={() => setAsLines(labels.join('\n'))}>As lines</Button>
      </span>
    </div>
  );
}

function Words({
  index,
  label,
  change,
  paste,
}: {
  index: number;
  label: string;
  change: (label: string) => void;
  paste?: (event: ClipboardEvent) => void;
}) {
  return (
    <input
      aria-label={`Words of option ${index + 1}`}
      className={BOX}
      value={label}
      onChange={({ target }) => change(target.value)}
      onPaste={paste}
    />
  );
}
