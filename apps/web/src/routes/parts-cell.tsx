import {
  answerKeys,
  arrives,
  VISIT_NAMES,
  VISIT_PART_NAMES_DERIVED,
  type Part,
  type Value,
  type Write,
} from '@haycart/core';
import type { ProfileFieldShape } from '@haycart/api';
import { Command } from 'cmdk';
import { ChevronLeft, Plus, X } from 'lucide-react';
import { Popover } from 'radix-ui';
import { Fragment, useState } from 'react';
import { Mono } from '../components/sheet';
import { TextField } from '../components/text-field';
import { useTables } from './draft';

const VISIT_PARTS = [...VISIT_PART_NAMES_DERIVED, ...VISIT_NAMES];

/** What feeds a field: its parts in order, each of which can be taken away, and a list to pick more from. */
export function PartsCell({
  value,
  change,
  earlier,
  incoming,
  sample,
  label,
}: {
  value: Value;
  change: (value: Value) => void;
  /** The writes whose fields may be parts. */
  earlier: readonly Write[];
  incoming: readonly ProfileFieldShape[];
  sample: ReadonlyMap<string, string>;
  label: string;
}) {
  const { parts, joinWith = ' ' } = value;
  const set = (next: Part[]) => change({ ...value, parts: next });
  return (
    <div className="flex min-w-0 flex-wrap items-center gap-1">
      {parts.map((part, index) => (
        <Fragment key={index}>
          {index > 0 && (
            <span className="text-muted" title={`joined with “${joinWith}”`}>
              +
            </span>
          )}
          <PartChip
            part={part}
            name={nameOf(part, incoming)}
            isMissing={isMissing(part, incoming)}
            remove={() => set(parts.filter((_, other) => other !== index))}
            {...(index > 0 ? { forward: () => set(parts.toSpliced(index, 1).toSpliced(index - 1, 0, part)) } : {})}
          />
        </Fragment>
      ))}
      <Picker
        label={label}
        value={value}
        change={change}
        earlier={earlier}
        incoming={incoming}
        sample={sample}
        add={(part) => set([...parts, part])}
      />
    </div>
  );
}

/** Whether something arrived already, and nothing of it under this name. */
function isMissing(part: Part, incoming: readonly ProfileFieldShape[]): boolean {
  if (!('answer' in part) || !incoming.length) return false;
  return !arrives(
    part,
    incoming.flatMap(({ key, also }) => [key, ...also]),
  );
}

/** What the sender or a person calls an answer; null where its key says it. */
function nameOf(part: Part, incoming: readonly ProfileFieldShape[]): string | null {
  if (!('answer' in part)) return null;
  const seen = incoming.find(({ key, also }) => key === part.answer || also.includes(part.answer));
  if (!seen || seen.label === seen.key) return null;
  return [seen.label, ...(part.or ?? [])].join(' or ');
}

function PartChip({
  part,
  name,
  isMissing,
  remove,
  forward,
}: {
  part: Part;
  name: string | null;
  isMissing: boolean;
  remove: () => void;
  /** Puts it before the part that it follows; absent for the first. */
  forward?: () => void;
}) {
  const text = partText(part);
  const look = 'answer' in part ? 'bg-slate-soft' : 'visit' in part ? 'bg-straw-soft' : 'border border-line';
  return (
    <span className={`inline-flex max-w-full items-center rounded-sm ${look}`}>
      {forward && (
        <button
          type="button"
          aria-label={`Put ${name ?? text} before what it follows`}
          onClick={forward}
          className="flex h-6 w-4 flex-none items-center justify-center text-muted hover:text-ink"
        >
          <ChevronLeft className="size-3" aria-hidden />
        </button>
      )}
      {name ? (
        <span className="truncate pl-1.5" title={text}>
          {name}
        </span>
      ) : (
        <Mono className="truncate pl-1.5">{text}</Mono>
      )}
      {isMissing && <span className="flex-none pl-1.5 text-small text-brick">never arrived</span>}
      <button
        type="button"
        aria-label={`Remove ${name ?? text}`}
        onClick={remove}
        className="flex size-6 flex-none items-center justify-center text-muted hover:text-brick"
      >
        <X className="size-3" aria-hidden />
      </button>
    </span>
  );
}

/** A part as it is written in a chip. */
function partText(part: Part): string {
  if ('answer' in part) return answerKeys(part).join(' or ');
  if ('visit' in part) return part.visit;
  if ('text' in part) return `“${part.text}”`;
  if ('decision' in part) return `${part.decision}: ${part.output}`;
  return `${part.write}.${part.field}`;
}

const ITEM =
  'grid cursor-pointer grid-cols-[minmax(0,1fr)_minmax(0,1fr)] items-center gap-3 rounded px-2 py-1 data-[selected=true]:bg-straw-soft';

function Picker({
  label,
  value,
  change,
  earlier,
  incoming,
  sample,
  add,
}: {
  label: string;
  value: Value;
  change: (value: Value) => void;
  earlier: readonly Write[];
  incoming: readonly ProfileFieldShape[];
  sample: ReadonlyMap<string, string>;
  add: (part: Part) => void;
}) {
  const tables = useTables();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const pick = (part: Part) => {
    add(part);
    setOpen(false);
    setText('');
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={`Add what feeds ${label}`}
        className={`flex h-6 min-w-6 flex-none items-center justify-center gap-1 rounded-sm text-muted hover:bg-hair hover:text-ink ${value.parts.length ? '' : 'flex-1 !justify-start'}`}
      >
        {value.parts.length === 0 && <span>nothing yet</span>}
        <Plus className="size-3.5" aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          role="dialog"
          aria-label={`What feeds ${label}`}
          className="z-50 w-[420px] max-w-[calc(100vw-24px)] rounded border border-line bg-raised shadow-xl"
        >
          <Command loop>
            <Command.Input
              value={text}
              onValueChange={setText}
              placeholder="Find an answer, or type a text"
              className="h-10 w-full border-b border-line bg-transparent px-3 outline-none placeholder:text-faint"
            />
            <Command.List className="max-h-[300px] overflow-y-auto p-1.5 [&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-label [&_[cmdk-group-heading]]:font-semibold [&_[cmdk-group-heading]]:text-muted">
              {text.trim() !== '' && (
                <Command.Item value={`text ${text}`} onSelect={() => pick({ text })} className={ITEM}>
                  <span>the text “{text}”</span>
                </Command.Item>
              )}
              <Command.Group heading="Answers, with this sample’s values">
                {incoming.map(({ key, label: words }) => (
                  <Command.Item
                    key={key}
                    value={`answer ${key} ${words} ${sample.get(key) ?? ''}`}
                    onSelect={() => pick({ answer: key })}
                    className={ITEM}
                  >
                    {words === key ? (
                      <Mono className="truncate">{key}</Mono>
                    ) : (
                      <span className="truncate">{words}</span>
                    )}
                    <span className="truncate text-muted">{sample.get(key) ?? ''}</span>
                  </Command.Item>
                ))}
              </Command.Group>
              <Command.Group heading="The visit">
                {VISIT_PARTS.map((name) => (
                  <Command.Item
                    key={name}
                    value={`visit ${name}`}
                    onSelect={() => pick({ visit: name })}
                    className={ITEM}
                  >
                    <Mono>{name}</Mono>
                  </Command.Item>
                ))}
              </Command.Group>
              {tables.length > 0 && (
                <Command.Group heading="Decided by a table">
                  {tables.flatMap(({ name, outputs }) =>
                    outputs.map((output) => (
                      <Command.Item
                        key={`${name} ${output.name}`}
                        value={`decision ${name} ${output.name}`}
                        onSelect={() => pick({ decision: name, output: output.name })}
                        className={ITEM}
                      >
                        <span className="truncate">{name}</span>
                        <span className="truncate text-muted">{output.name}</span>
                      </Command.Item>
                    )),
                  )}
                </Command.Group>
              )}
              {earlier.length > 0 && (
                <Command.Group heading="Records written before">
                  {earlier.flatMap(({ as, fills, record }) =>
                    [
                      ...new Set([...fills.map(({ field }) => field), ...(record === 'contact' ? ['full_name'] : [])]),
                    ].map((field) => (
                      <Command.Item
                        key={`${as}.${field}`}
                        value={`write ${as} ${field}`}
                        onSelect={() => pick({ write: as, field })}
                        className={ITEM}
                      >
                        <Mono>{`${as}.${field}`}</Mono>
                      </Command.Item>
                    )),
                  )}
                </Command.Group>
              )}
            </Command.List>
          </Command>
          {value.parts.length > 0 && (
            <div className="border-t border-line p-2.5">
              <TextField
                label="Joined with"
                value={value.joinWith ?? ' '}
                onChange={({ target }) => change({ ...value, joinWith: target.value })}
              />
            </div>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
