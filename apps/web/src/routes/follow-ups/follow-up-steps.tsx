import type { ProfileFieldShape } from '@haycart/api';
import { effectOf, EFFECT_KINDS, type Destination, type FollowUp, type RouteDefinition } from '@haycart/core';
import { ArrowUp, Plus, Trash2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
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
              put={(next) => set(followUps.with(index, next))}
              remove={() => set(followUps.toSpliced(index, 1))}
              up={
                place > 0
                  ? () => set(followUps.toSpliced(index, 1).toSpliced(steps[place - 1]!.index, 0, followUp))
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
                  onSelect={() => set([...followUps, begun])}
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
  put,
  remove,
  up,
  ...around
}: Around & {
  followUp: FollowUp;
  number: number;
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
      <header className="flex flex-wrap items-center gap-x-2">
        <span className="tabular w-4 flex-none font-semibold text-faint">{number}</span>
        <Icon className="size-4 flex-none" aria-hidden />
        <b className="font-semibold">{kind.label}</b>
        <DoneWhen followUp={followUp} name={name} put={put} {...around} />
        <span className="ml-auto flex">
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
      <div className="mt-1.5 grid grid-cols-[96px_minmax(0,1fr)] items-center gap-x-3 gap-y-1.5 pl-12 max-sm:grid-cols-1 max-sm:pl-0">
        <Editor {...around} followUp={followUp} put={put} />
      </div>
    </li>
  );
}
