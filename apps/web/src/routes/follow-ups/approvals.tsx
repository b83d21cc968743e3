import type { ProfileFieldShape } from '@haycart/api';
import { isApproval, type ApprovalHold, type Destination, type Hold, type RouteDefinition } from '@haycart/core';
import { Plus, ShieldCheck, Trash2 } from 'lucide-react';
import { Button, IconButton } from '../../components/button';
import { OwnerChoice } from '../../components/owner-choice';
import { useDraft } from '../draft';
import { DoneWhen } from './done-when';

/** Who is asked before anything is written. */
export function Approvals({
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
  const approvals = holds.flatMap((hold, index) => (isApproval(hold) ? [{ hold, index }] : []));
  return (
    <section aria-label="Before anything is written" className="flex flex-col gap-2 border-t border-line pt-3">
      <h3 className="text-[14px]">Before anything is written</h3>
      {approvals.map(({ hold, index }, place) => {
        const name = approvals.length > 1 ? `Approval ${place + 1}` : 'Approval';
        return (
          <div key={index} role="group" aria-label={name} className="flex flex-wrap items-center gap-x-2 gap-y-1">
            <ShieldCheck className="size-4 flex-none" aria-hidden />
            <b className="font-semibold">{name}</b>
            <span className="text-muted">by</span>
            <div className="w-56 max-sm:w-full">
              <OwnerChoice
                label={`Who is asked, ${name.toLowerCase()}`}
                hideLabel
                nobody="choose who is asked"
                record="contact"
                owner={hold.by}
                destination={destination}
                change={(by) => by && set(holds.with(index, { ...hold, by }))}
              />
            </div>
            <span className="flex items-center gap-x-1.5 text-small">
              <DoneWhen<ApprovalHold>
                step={hold}
                name={name}
                otherwise="All other submissions are written without anybody being asked."
                definition={definition}
                destination={destination}
                incoming={incoming}
                put={(next) => set(holds.with(index, next))}
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
      <Button
        className="self-start"
        onClick={() => {
          const asks: ApprovalHold = {
            for: 'approval',
            by: first === undefined ? { enteredBy: true } : { team: first },
          };
          set([...holds, asks]);
        }}
      >
        <Plus className="size-4" aria-hidden /> Ask somebody first
      </Button>
    </section>
  );
}
