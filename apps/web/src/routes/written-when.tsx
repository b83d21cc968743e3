import type { ProfileFieldShape } from '@haycart/api';
import { conditionInWords, recordWord, type Destination, type RouteDefinition, type Write } from '@haycart/core';
import { useState } from 'react';
import { Dialog } from '../components/dialog';
import { ConditionOnAnswers } from './condition-on-answers';
import { changeWrite } from './draft';

/** Whether a record is written always, or only when the answers are so. */
export function WrittenWhen({
  write,
  definition,
  destination,
  incoming,
}: {
  write: Write;
  definition: RouteDefinition;
  destination: Destination;
  incoming: readonly ProfileFieldShape[];
}) {
  const [open, setOpen] = useState(false);
  const word = recordWord(destination, write.record);
  return (
    <div className="flex min-h-9 min-w-0 items-center gap-x-2 px-2.5">
      <span className={`min-w-0 ${write.when ? '' : 'text-muted'}`}>
        {write.when ? `written only when ${conditionInWords(write.when, definition, destination)}` : 'always written'}
      </span>
      <button
        type="button"
        aria-label={`When the ${word} is written`}
        onClick={() => setOpen(true)}
        className="h-6 flex-none rounded-sm px-1 text-slate underline hover:bg-hair"
      >
        {write.when ? 'change' : 'only when…'}
      </button>
      <Dialog
        wide
        open={open}
        close={() => setOpen(false)}
        title={`When the ${word} is written`}
        description="For all other submissions nothing is written of it; the rest of the route goes on."
      >
        <div className="flex min-h-[220px] flex-col gap-3">
          <ConditionOnAnswers
            lead={`Writes the ${word} where`}
            condition={write.when}
            incoming={incoming}
            change={(condition) =>
              changeWrite(write.as, ({ when: _, ...rest }) => (condition ? { ...rest, when: condition } : rest))
            }
          />
        </div>
      </Dialog>
    </div>
  );
}
