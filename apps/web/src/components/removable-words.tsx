import { describeCondition, type FieldPart, type RecordCondition } from '@haycart/core';
import { X } from 'lucide-react';
import { removableParts, type ConditionTerms } from './condition-builder';

/** Each part of a filter as words with its way out. */
export function RemovableWords({
  filter,
  change,
  terms,
  of,
}: {
  filter: RecordCondition;
  change: (filter: RecordCondition | undefined) => void;
  terms: ConditionTerms;
  /** What the filter is about, where that is not plain from the place. */
  of?: string;
}) {
  const nameFor = ({ field }: FieldPart) => {
    const found = terms.fields.find(({ key }) => key === field);
    return { label: found?.label ?? field, options: found?.options, teams: terms.teams };
  };
  return removableParts(filter).map(({ part, rest }, index) => (
    <RemovableWord
      key={index}
      words={`${of ? `${of}: ` : ''}${describeCondition(part, nameFor)}`}
      remove={() => change(rest)}
    />
  ));
}

/** Words with a way out. */
export function RemovableWord({ words, remove }: { words: string; remove: () => void }) {
  return (
    <span className="inline-flex h-7 max-w-full items-center rounded border border-ink bg-straw-soft pl-2">
      <span className="truncate">{words}</span>
      <button
        type="button"
        aria-label={`No longer: ${words}`}
        onClick={remove}
        className="flex h-full flex-none items-center px-1.5 hover:bg-straw"
      >
        <X className="size-3.5" aria-hidden />
      </button>
    </span>
  );
}
