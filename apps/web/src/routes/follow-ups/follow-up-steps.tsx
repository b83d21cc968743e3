import type { ProfileFieldShape } from '@haycart/api';
import { effectOf, EFFECT_KINDS, type Destination, type FollowUp, type RouteDefinition } from '@haycart/core';
import { ArrowUp, Plus, Trash2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { buttonLook, IconButton } from '../../components/button';
import { useDraft } from '../draft';
import { DoneWhen } from './done-when';
import { EDITORS } from './editors';
import { isPlainMark } from './plain-mark';

interface Around {
  definition: RouteDefinition;
  destination: Destination;
  incoming: readonly ProfileFieldShape[];
  sample: ReadonlyMap<string, string>;
}

/** What is done once the records are written, step by step in its order. */
export function FollowUpSteps(around: Around) {
  const { followUps = [], writes } = around.definition;
  const change = useDraft(({ change }) => change);
  const set = (next: FollowUp[]) =>
    change(({ followUps: _, ...draft }) => (next.length ? { ...draft, followUps: next } : draft));
  const [opened, setOpened] = useState<number | null>(null);
  const steps = followUps.flatMap((followUp, index) => (isPlainMark(followUp) ? [] : [{ followUp, index }]));
  return (
    <section aria-label="Steps after the records are written" className="flex flex-col gap-2 border-t border-line pt-3">
      <h3 className="text-[14px]">After the records are written</h3>
      {steps.length > 0 && (
        <ol className="flex flex-col">
          {steps.map(({ followUp, index }, place) => (
            <Step
              key={index}
              {...around}
              followUp={followUp}
              number={place + 1}
              isOpen={opened === index}
              toggle={() => setOpened(opened === index ? null : index)}
              put={(next) => set(followUps.with(index, next))}
              remove={() => {
                set(followUps.toSpliced(index, 1));
                setOpened(null);
              }}
              up={
                place > 0
                  ? () => {
                      const to = steps[place - 1]!.index;
                      set(followUps.toSpliced(index, 1).toSpliced(to, 0, followUp));
                      setOpened(opened === index ? to : null);
                    }
                  : undefined
              }
            />
          ))}
        </ol>
      )}
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className={`${buttonLook('quiet')} self-start`}>
          <Plus className="size-4" aria-hidden /> Add a follow-up
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="start"
            sideOffset={4}
            className="z-50 w-[340px] max-w-[calc(100vw-24px)] rounded border border-line bg-raised p-1 shadow-xl"
          >
            {EFFECT_KINDS.map((kind) => {
              const editor = EDITORS[kind.do];
              const begun = editor?.begin(writes);
              return begun ? (
                <DropdownMenu.Item
                  key={kind.do}
                  onSelect={() => {
                    set([...followUps, begun]);
                    setOpened(followUps.length);
                  }}
                  className="cursor-pointer rounded px-2.5 py-1.5 data-[highlighted]:bg-straw-soft"
                >
                  <b className="font-semibold">{kind.label}</b>
                  <span className="block text-small text-muted">{kind.description}</span>
                </DropdownMenu.Item>
              ) : null;
            })}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </section>
  );
}

function Step({
  followUp,
  number,
  isOpen,
  toggle,
  put,
  remove,
  up,
  ...around
}: Around & {
  followUp: FollowUp;
  number: number;
  isOpen: boolean;
  toggle: () => void;
  put: (next: FollowUp) => void;
  remove: () => void;
  up: (() => void) | undefined;
}) {
  const kind = effectOf(followUp);
  const editor = EDITORS[followUp.do];
  if (!kind || !editor) return null;
  const { Editor, Icon } = editor;
  const name = `${kind.label}, step ${number}`;
  return (
    <li aria-label={name} className="border-t border-hair py-2 first:border-t-0">
      <header className="flex items-start gap-x-2 max-sm:flex-wrap">
        <button
          type="button"
          aria-expanded={isOpen}
          onClick={toggle}
          className="flex min-h-7 min-w-0 flex-1 items-start gap-x-2 rounded-sm py-1 text-left hover:bg-hair"
        >
          <span className="w-4 flex-none font-semibold text-faint tabular-nums">{number}</span>
          <Icon className="mt-0.5 size-4 flex-none" aria-hidden />
          <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
            <b className="font-semibold">{kind.label}</b>
            <span className="text-muted">
              : {kind.describe(followUp, { route: around.definition, destination: around.destination })}
            </span>
          </span>
        </button>
        <span className="flex min-h-7 max-w-[40%] flex-wrap items-center justify-end gap-x-1.5 text-small max-sm:max-w-none">
          <DoneWhen step={followUp} name={name} put={put} {...around} />
        </span>
        <span className="flex flex-none items-center">
          {up && (
            <IconButton label={`Do step ${number} earlier`} className="!size-7 text-muted" onClick={up}>
              <ArrowUp className="size-3.5" aria-hidden />
            </IconButton>
          )}
          <IconButton label={`Remove step ${number}`} className="!size-7 text-muted" onClick={remove}>
            <Trash2 className="size-3.5" aria-hidden />
          </IconButton>
        </span>
      </header>
      {isOpen && (
        <div className="mt-1.5 grid grid-cols-[96px_minmax(0,1fr)] items-center gap-x-3 gap-y-1.5 pl-12 max-sm:grid-cols-1 max-sm:pl-0">
          <Editor {...around} followUp={followUp} put={put} />
        </div>
      )}
    </li>
  );
}
