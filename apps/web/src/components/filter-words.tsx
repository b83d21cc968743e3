import { describeCondition, type FieldPart, type RecordCondition } from '@haycart/core';
import { ListFilter, X } from 'lucide-react';
import { useState } from 'react';
import { Button } from './button';
import { asGroup, ConditionBuilder, finished, removableParts, type ConditionTerms } from './condition-builder';
import { Popover } from './popover';

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
  const nameFor = ({ field }: FieldPart) => {
    const found = terms.fields.find(({ key }) => key === field);
    return { label: found?.label ?? field, options: found?.options, teams: terms.teams };
  };
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
      {filter &&
        removableParts(filter).map(({ part, rest }, index) => {
          const words = describeCondition(part, nameFor);
          return (
            <span
              key={index}
              className="inline-flex h-7 max-w-full items-center rounded border border-ink bg-straw-soft pl-2"
            >
              <span className="truncate">{words}</span>
              <button
                type="button"
                aria-label={`No longer: ${words}`}
                onClick={() => change(rest)}
                className="flex h-full flex-none items-center px-1.5 hover:bg-straw"
              >
                <X className="size-3.5" aria-hidden />
              </button>
            </span>
          );
        })}
    </div>
  );
}
