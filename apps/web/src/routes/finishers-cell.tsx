import { FINISHERS, finisherNamed, type Fill, type FinisherUse, type Write } from '@haycart/core';
import { ArrowUp, X } from 'lucide-react';
import { Popover } from 'radix-ui';
import { IconButton } from '../components/button';
import { SelectField, TextField } from '../components/text-field';
import { changeFill } from './draft';

const OVERWRITE = { always: 'replace it', 'if-blank': 'keep it, fill only a blank', never: 'never touch it' } as const;
const IF_EMPTY = { leave: 'leave the field', clear: 'clear the field', fail: 'fail the run' } as const;

/** How a value is finished, and what happens when the field has a value or there is none to fill in. */
export function FinishersCell({ write, fill, label }: { write: Write; fill: Fill; label: string }) {
  const uses = fill.value.finishers ?? [];
  const set = (finishers: FinisherUse[]) =>
    changeFill(write.as, fill.field, (known) => ({ ...known, value: { ...known.value, finishers } }));
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={`Finishers of ${label}`}
        className="flex min-h-6 max-w-full flex-wrap gap-x-2 rounded-sm text-left text-[13px] hover:bg-hair"
      >
        {uses.map(({ use, with: parameters }, index) => (
          <span key={index} className="border-b border-dotted border-green">
            {[finisherNamed(use)?.label ?? use, ...Object.values(parameters ?? {}).map(String)].join(', ')}
          </span>
        ))}
        {fill.overwrite && fill.overwrite !== 'always' && (
          <span className="border-b border-dotted border-green">
            {fill.overwrite === 'if-blank' ? 'if blank only' : 'never over a value'}
          </span>
        )}
        {!uses.length && (!fill.overwrite || fill.overwrite === 'always') && (
          <span className="text-faint">as it is</span>
        )}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          role="dialog"
          aria-label={`Finishers of ${label}`}
          className="z-50 flex w-[340px] max-w-[calc(100vw-24px)] flex-col gap-3 rounded border border-line bg-raised p-3 shadow-xl"
        >
          {uses.length > 0 && (
            <ol className="flex flex-col gap-1">
              {uses.map((use, index) => (
                <FinisherLine
                  key={index}
                  use={use}
                  change={(next) => set(uses.map((other, place) => (place === index ? next : other)))}
                  remove={() => set(uses.filter((_, place) => place !== index))}
                  up={
                    index === 0
                      ? undefined
                      : () =>
                          set(
                            uses.map((other, place) =>
                              place === index - 1 ? uses[index]! : place === index ? uses[index - 1]! : other,
                            ),
                          )
                  }
                />
              ))}
            </ol>
          )}
          <SelectField
            label="Add a finisher"
            value=""
            onChange={({ target }) => target.value && set([...uses, { use: target.value }])}
          >
            <option value="">Choose</option>
            {FINISHERS.map(({ name, label: title, example }) => (
              <option
                key={name}
                value={name}
              >{`${title}: ${example.before.trim().slice(0, 22)} → ${example.after.slice(0, 22)}`}</option>
            ))}
          </SelectField>
          <SelectField
            label="When there is a value already"
            value={fill.overwrite ?? 'always'}
            onChange={({ target }) =>
              changeFill(write.as, fill.field, (known) => ({
                ...known,
                overwrite: target.value as keyof typeof OVERWRITE,
              }))
            }
          >
            {Object.entries(OVERWRITE).map(([key, words]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </SelectField>
          <SelectField
            label="When nothing comes in"
            value={fill.ifEmpty ?? 'leave'}
            onChange={({ target }) =>
              changeFill(write.as, fill.field, (known) => ({
                ...known,
                ifEmpty: target.value as keyof typeof IF_EMPTY,
              }))
            }
          >
            {Object.entries(IF_EMPTY).map(([key, words]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </SelectField>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function FinisherLine({
  use,
  change,
  remove,
  up,
}: {
  use: FinisherUse;
  change: (use: FinisherUse) => void;
  remove: () => void;
  up: (() => void) | undefined;
}) {
  const finisher = finisherNamed(use.use);
  const parameters = Object.keys(finisher?.parameters.shape ?? {});
  return (
    <li className="rounded border border-hair px-2 py-1">
      <div className="flex items-center gap-1">
        <span className="min-w-0 flex-1" title={finisher?.description}>
          {finisher?.label ?? use.use}
        </span>
        {up && (
          <IconButton label={`Move ${finisher?.label ?? use.use} up`} onClick={up} className="!size-6">
            <ArrowUp className="size-3.5" aria-hidden />
          </IconButton>
        )}
        <IconButton label={`Take away ${finisher?.label ?? use.use}`} onClick={remove} className="!size-6">
          <X className="size-3.5" aria-hidden />
        </IconButton>
      </div>
      {parameters.map((name) => (
        <TextField
          key={name}
          label={name}
          value={String(use.with?.[name] ?? '')}
          onChange={({ target }) => {
            const { [name]: _, ...others } = use.with ?? {};
            change(target.value ? { ...use, with: { ...others, [name]: target.value } } : { ...use, with: others });
          }}
        />
      ))}
    </li>
  );
}
