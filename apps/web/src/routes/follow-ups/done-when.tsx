import type { ProfileFieldShape } from '@haycart/api';
import { conditionInWords, type Condition, type Destination, type RouteDefinition } from '@haycart/core';
import { useState } from 'react';
import { Dialog } from '../../components/dialog';
import { ConditionOnAnswers } from '../condition-on-answers';

/** Whether a follow-up is done always, or only when the answers are so. */
export function DoneWhen<Step extends { when?: Condition | undefined }>({
  step,
  name,
  definition,
  destination,
  incoming,
  otherwise = 'For all other submissions this step is left out; the records are written all the same.',
  put,
}: {
  step: Step;
  name: string;
  definition: RouteDefinition;
  destination: Destination;
  incoming: readonly ProfileFieldShape[];
  /** What is so for submissions that do not meet it. */
  otherwise?: string;
  put: (next: Step) => void;
}) {
  const [open, setOpen] = useState(false);
  const { when } = step;
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
      <Dialog wide open={open} close={() => setOpen(false)} title={`When ${name} is done`} description={otherwise}>
        <div className="flex min-h-[220px] flex-col gap-3">
          <ConditionOnAnswers
            lead="Does it where"
            condition={when}
            incoming={incoming}
            change={(condition) => {
              const { when: _, ...rest } = step;
              put((condition ? { ...rest, when: condition } : rest) as Step);
            }}
          />
        </div>
      </Dialog>
    </>
  );
}
