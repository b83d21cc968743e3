import type { RecordCondition } from '@haycart/core';
import { ListFilter } from 'lucide-react';
import { useState } from 'react';
import { Button } from './button';
import { asGroup, ConditionBuilder, finished, type ConditionTerms } from './condition-builder';
import { Popover } from './popover';
import { RemovableWords } from './removable-words';

/** What a list is narrowed to, as words in one line, each with its way out; and the builder behind them. */
export function FilterWords({
  filter,
  change,
  terms,
}: {
  filter: RecordCondition | undefined;
  change: (filter: RecordCondition | undefined) => void;
  terms: ConditionTerms;
}) {
  // What is being typed may not be finished; the list is asked for what is.
  const [draft, setDraft] = useState<RecordCondition | null>(null);
  const edit = (next: RecordCondition) => {
    setDraft(next);
    change(finished(next));
  };
  return (
    <div className="flex flex-wrap items-center gap-1.5">
      <Popover
        wide
        label="Filter"
        onOpenChange={(open) => setDraft(open ? asGroup(filter ?? { all: [] }) : null)}
        trigger={
          <Button className="!h-7">
            <ListFilter className="size-3.5" aria-hidden /> Filter
          </Button>
        }
      >
        <ConditionBuilder condition={draft ?? asGroup(filter ?? { all: [] })} change={edit} terms={terms} />
      </Popover>
      {filter && <RemovableWords filter={filter} change={change} terms={terms} />}
    </div>
  );
}
