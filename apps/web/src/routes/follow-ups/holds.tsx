import type { ProfileFieldShape } from '@haycart/api';
import {
  holdRuleOf,
  isApproval,
  isConfirmation,
  type ConfirmationHold,
  type Destination,
  type Hold,
  type RouteDefinition,
} from '@haycart/core';
import { MailCheck, Plus, ShieldCheck, Trash2 } from 'lucide-react';
import { confirmTemplateOf } from '../../api/new-template';
import { Button, IconButton } from '../../components/button';
import { useDraft } from '../draft';
import { ApprovalSettings } from './approval-settings';
import { ConfirmationSettings } from './confirmation-settings';
import { DoneWhen } from './done-when';

/** Who is asked before anything is written: colleagues, or the visitor. */
export function Holds({
  definition,
  destination,
  incoming,
}: {
  definition: RouteDefinition;
  destination: Destination;
  incoming: readonly ProfileFieldShape[];
}) {
  const change = useDraft(({ change: by }) => by);
  const { holds = [] } = definition;
  const set = (next: Hold[]) => change(({ holds: _, ...draft }) => (next.length ? { ...draft, holds: next } : draft));
  const first = Object.keys(destination.teams ?? {})[0];
  return (
    <section aria-label="Before anything is written" className="flex flex-col gap-2 border-t border-line pt-3">
      <h3 className="text-[14px]">Before anything is written</h3>
      {holds.map((hold, index) => {
        const name = nameOf(holds, index);
        const put = (next: Hold) => set(holds.with(index, next));
        const Icon = isConfirmation(hold) ? MailCheck : ShieldCheck;
        return (
          <div key={index} role="group" aria-label={name} className="flex flex-wrap items-center gap-x-2 gap-y-1">
            <Icon className="size-4 flex-none" aria-hidden />
            <b className="font-semibold">{name}</b>
            {isApproval(hold) && (
              <ApprovalSettings hold={hold} name={name.toLowerCase()} destination={destination} put={put} />
            )}
            {isConfirmation(hold) && (
              <ConfirmationSettings hold={hold} name={name.toLowerCase()} destination={destination} put={put} />
            )}
            <span className="flex items-center gap-x-1.5 text-small">
              <DoneWhen<Hold>
                step={hold}
                name={name}
                otherwise="All other submissions are written without anybody being asked."
                definition={definition}
                destination={destination}
                incoming={incoming}
                put={put}
              />
            </span>
            <IconButton
              label={`Remove the ${name.toLowerCase()}`}
              className="ml-auto !size-7 text-muted"
              onClick={() => set(holds.toSpliced(index, 1))}
            >
              <Trash2 className="size-3.5" aria-hidden />
            </IconButton>
          </div>
        );
      })}
      <div className="flex flex-wrap gap-2">
        <Button
          onClick={() =>
            set([...holds, { for: 'approval', by: first === undefined ? { enteredBy: true } : { team: first } }])
          }
        >
          <Plus className="size-4" aria-hidden /> Ask somebody first
        </Button>
        {!holds.some(isConfirmation) && (
          <Button onClick={() => set([...holds, confirmation(destination)])}>
            <Plus className="size-4" aria-hidden /> Have the visitor confirm
          </Button>
        )}
      </div>
    </section>
  );
}

/** What a hold is called: with a number where there are several of its kind. */
function nameOf(holds: readonly Hold[], index: number): string {
  const hold = holds[index]!;
  const label = holdRuleOf(hold)?.label ?? hold.for;
  const alike = holds.flatMap((one, place) => (one.for === hold.for ? place : []));
  return alike.length > 1 ? `${label} ${alike.indexOf(index) + 1}` : label;
}

function confirmation({ templates = [] }: Destination): ConfirmationHold {
  return { for: 'confirmation', template: confirmTemplateOf(templates) ?? '' };
}
