import { COLOUR_MARKS, listLines, type ColourMark, type FieldDefinition, type FieldOption } from '@haycart/core';
import { ArrowDown, ArrowUp } from 'lucide-react';
import type { ClipboardEvent } from 'react';
import { useFieldArray, useForm } from 'react-hook-form';
import { Button, IconButton } from './button';
import { Dialog } from './dialog';
import { messageOf } from './status';
import { CopyKey } from './copy-key';
import { useFieldChange } from './use-field-change';

interface Line {
  option: string;
  label: string;
  aliases: string;
  colour: ColourMark | '';
  retired: boolean;
}

const INPUT = 'h-8 w-full min-w-0 rounded border border-faint bg-raised px-2';

/** The options of a list: what they are called, what else forms may call them, and which are no longer chosen. */
export function OptionsDialog({ field, close }: { field: FieldDefinition; close: () => void }) {
  const change = useFieldChange(field);
  const form = useForm<{ lines: Line[] }>({ defaultValues: { lines: (field.options ?? []).map(lineFrom) } });
  const lines = useFieldArray({ control: form.control, name: 'lines' });
  const paste = (event: ClipboardEvent, index: number) => {
    const pasted = listLines(event.clipboardData.getData('text'));
    if (pasted.length < 2) return;
    event.preventDefault();
    const isBlank = !form.getValues(`lines.${index}.label`);
    if (isBlank) lines.remove(index);
    lines.insert(isBlank ? index : index + 1, pasted.map(newLine));
  };
  const save = ({ lines: kept }: { lines: Line[] }) =>
    change.mutate({ options: kept.filter(({ label }) => label.trim() !== '').map(optionFrom) }, { onSuccess: close });
  return (
    <Dialog
      open
      wide
      close={close}
      title={`Options of ${field.label}`}
      description="Forms may send an option’s name or any of its other names, in any case. A retired option stays on the records that have it."
    >
      <form className="flex flex-col gap-3" onSubmit={(event) => void form.handleSubmit(save)(event)}>
        <div className="grid grid-cols-[60px_minmax(0,1fr)_minmax(0,1.2fr)_64px] items-center gap-x-2 gap-y-1 sm:grid-cols-[60px_minmax(0,1fr)_minmax(0,1.2fr)_88px_64px_120px]">
          <span className="text-label font-semibold text-muted">Order</span>
          <span className="text-label font-semibold text-muted">Option</span>
          <span className="text-label font-semibold text-muted">Other names, with commas between</span>
          <span className="text-label font-semibold text-muted max-sm:hidden">Mark</span>
          <span className="text-center text-label font-semibold text-muted">Retired</span>
          <span className="text-label font-semibold text-muted max-sm:hidden">Key</span>
          {lines.fields.map((line, index) => (
            <div key={line.id} className="contents">
              <span className="flex">
                <IconButton
                  label={`Option ${index + 1} up`}
                  className="!size-7 text-muted"
                  disabled={index === 0}
                  onClick={() => lines.swap(index, index - 1)}
                >
                  <ArrowUp className="size-3.5" aria-hidden />
                </IconButton>
                <IconButton
                  label={`Option ${index + 1} down`}
                  className="!size-7 text-muted"
                  disabled={index === lines.fields.length - 1}
                  onClick={() => lines.swap(index, index + 1)}
                >
                  <ArrowDown className="size-3.5" aria-hidden />
                </IconButton>
              </span>
              <input
                aria-label={`Name of option ${index + 1}`}
                className={INPUT}
                onPaste={(event) => paste(event, index)}
                {...form.register(`lines.${index}.label`)}
              />
              <input
                aria-label={`Other names of option ${index + 1}`}
                className={INPUT}
                {...form.register(`lines.${index}.aliases`)}
              />
              <select
                aria-label={`Mark of option ${index + 1}`}
                className={`${INPUT} px-1 max-sm:hidden`}
                {...form.register(`lines.${index}.colour`)}
              >
                <option value="">none</option>
                {COLOUR_MARKS.map((mark) => (
                  <option key={mark} value={mark}>
                    {mark}
                  </option>
                ))}
              </select>
              <input
                type="checkbox"
                aria-label={`Option ${index + 1} is retired`}
                className="size-4 justify-self-center accent-green"
                {...form.register(`lines.${index}.retired`)}
              />
              <span className="min-w-0 max-sm:hidden">
                {line.option ? (
                  <CopyKey text={line.option} />
                ) : (
                  <span className="px-1.5 text-small text-muted">given when saved</span>
                )}
              </span>
            </div>
          ))}
        </div>
        <div className="flex items-center gap-2">
          <Button onClick={() => lines.append(newLine(''))}>Add an option</Button>
          <span className="text-small text-muted">A list can be pasted, an option on each line.</span>
          {change.isError && (
            <span role="alert" className="text-small text-brick">
              {messageOf(change.error)}
            </span>
          )}
          <span className="flex-1" />
          <Button onClick={close}>Cancel</Button>
          <Button look="main" type="submit" disabled={change.isPending}>
            Save the options
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

function newLine(label: string): Line {
  return { option: '', label, aliases: '', colour: '', retired: false };
}

function lineFrom({ key, label, aliases = [], colour = undefined, retired = false }: FieldOption): Line {
  return { option: key, label, aliases: aliases.join(', '), colour: colour ?? '', retired };
}

function optionFrom({ option, label, aliases, colour, retired }: Line): Omit<FieldOption, 'key'> & { key?: string } {
  const names = aliases
    .split(',')
    .map((name) => name.trim())
    .filter(Boolean);
  return {
    ...(option ? { key: option } : {}),
    label: label.trim(),
    ...(names.length ? { aliases: names } : {}),
    ...(colour ? { colour } : {}),
    ...(retired ? { retired } : {}),
  };
}
