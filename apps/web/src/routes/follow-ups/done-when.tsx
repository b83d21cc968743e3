import type { ProfileFieldShape } from '@haycart/api';
import { conditionInWords, type Destination, type FollowUp, type RouteDefinition } from '@haycart/core';
import { useState } from 'react';
import { Dialog } from '../../components/dialog';
import { ConditionOnAnswers } from '../condition-on-answers';

/** Whether a follow-up is done always, or only when the answers are so. */
export function DoneWhen({
  followUp,
  name,
  definition,
  destination,
  incoming,
  put,
}: {
  followUp: FollowUp;
  name: string;
  definition: RouteDefinition;
  destination: Destination;
  incoming: readonly ProfileFieldShape[];
  put: (next: FollowUp) => void;
}) {
  const [open, setOpen] = useState(false);
  const { when } = followUp;
  return (
    <>
      <span className={`min-w-0 ${when ? '' : 'text-muted'}`}>
        {when ? `only when ${conditionInWords(when, definition, destination)}` : 'always'}
      </span>
      <button
        type="button"
        aria-label={`When ${name} is done`}
        onClick={() => setOpen(true)}
        className="h-6 flex-none rounded-sm px-1 text-slate underline hover:bg-hair"
      >
        {when ? 'change' : 'only when…'}
      </button>
      <Dialog
        wide
        open={open}
        close={() => setOpen(false)}
        title={`When ${name} is done`}
        description="For all other submissions this step is left out; the records are written all the same."
      >
        <div className="flex min-h-[220px] flex-col gap-3">
          <ConditionOnAnswers
            lead="Does it where"
            condition={when}
            incoming={incoming}
            change={(condition) => {
              const { when: _, ...rest } = followUp;
              put(condition ? { ...rest, when: condition } : rest);
            }}
          />
        </div>
      </Dialog>
    </>
  );
}
