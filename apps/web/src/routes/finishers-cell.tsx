import type { ProfileFieldShape } from '@haycart/api';
import {
  answerKeys,
  FINISHERS,
  finisherNamed,
  type FieldDefinition,
  type Fill,
  type FinisherUse,
  type ValueTrace,
  type Write,
} from '@haycart/core';
import { Popover } from 'radix-ui';
import { SelectField } from '../components/text-field';
import { changeFill } from './draft';
import { FinisherLine } from './finisher-line';

const OVERWRITE = {
  always: 'replace it',
  'unless-typed': 'keep what a person typed',
  'if-blank': 'keep it, fill only a blank',
  never: 'never touch it',
} as const;
const OVERWRITE_SHORT = {
  'unless-typed': 'not over what a person typed',
  'if-blank': 'if blank only',
  never: 'never over a value',
} as const;
const IF_EMPTY = { leave: 'leave the field', clear: 'clear the field', fail: 'fail the run' } as const;

/** How a value is finished, and what happens when the field has a value or there is none to fill in. */
export function FinishersCell({
  write,
  fill,
  field,
  incoming,
  trace,
  label,
}: {
  write: Write;
  fill: Fill;
  field: FieldDefinition | undefined;
  incoming: readonly ProfileFieldShape[];
  /** How the value came about with the sample. */
  trace: ValueTrace | null | undefined;
  label: string;
}) {
  const uses = fill.value.finishers ?? [];
  const answers = fill.value.parts.flatMap((part) => ('answer' in part ? answerKeys(part) : []));
  const set = (finishers: FinisherUse[]) =>
    changeFill(write.as, fill.field, (known) => ({ ...known, value: { ...known.value, finishers } }));
  const swap = (index: number) =>
    set(uses.map((use, place) => (place === index - 1 ? uses[index]! : place === index ? uses[index - 1]! : use)));
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={`Finishers of ${label}`}
        className="flex min-h-6 max-w-full flex-wrap gap-x-2 rounded-sm text-left text-[13px] hover:bg-hair"
      >
        {uses.map((use, index) => (
          <span key={index} className="border-b border-dotted border-green">
            {inWords(use)}
          </span>
        ))}
        {fill.overwrite && fill.overwrite !== 'always' && (
          <span className="border-b border-dotted border-green">{OVERWRITE_SHORT[fill.overwrite]}</span>
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
          className="z-50 flex max-h-(--radix-popover-content-available-height) w-[380px] max-w-[calc(100vw-24px)] flex-col gap-3 overflow-y-auto rounded border border-line bg-raised p-3 shadow-xl"
        >
          {uses.length > 0 && (
            <ol className="flex flex-col gap-1.5">
              {uses.map((use, index) => (
                <FinisherLine
                  key={index}
                  use={use}
                  step={trace?.steps[index]?.use === use.use ? trace.steps[index] : undefined}
                  field={field}
                  incoming={incoming}
                  answers={answers}
                  change={(next) => set(uses.map((other, place) => (place === index ? next : other)))}
                  remove={() => set(uses.filter((_, place) => place !== index))}
                  up={index === 0 ? undefined : () => swap(index)}
                />
              ))}
            </ol>
          )}
          <SelectField
            label="Add a finisher"
            value=""
            onChange={({ target }) =>
              target.value && set([...uses, { use: target.value, ...firstSetting(target.value) }])
            }
          >
            <option value="">Choose</option>
            {FINISHERS.map(({ name, label: title, example }) => (
              <option key={name} value={name}>
                {`${title}: ${oneLine(example.before)} → ${oneLine(example.after)}`}
              </option>
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

/** A finisher with what it was set to; tables are told by their length. */
function inWords({ use, with: parameters = {} }: FinisherUse): string {
  const settings = Object.values(parameters).map((value) =>
    typeof value === 'object' && value !== null ? `${Object.keys(value).length} values` : String(value),
  );
  return [finisherNamed(use)?.label ?? use, ...settings].join(', ');
}

/** What a finisher must be told begins as in its example, so that it can be seen at work at once. */
function firstSetting(name: string): Pick<FinisherUse, 'with'> {
  const finisher = finisherNamed(name)!;
  return finisher.parameters.safeParse({}).success ? {} : { with: { ...finisher.example.with } };
}

function oneLine(text: string): string {
  const line = text
    .split('\n')
    .map((one) => one.trim())
    .filter(Boolean)
    .join(' / ');
  return line.length > 24 ? `${line.slice(0, 23)}…` : line;
}
