import { canGroupBy } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { fieldsQuery } from '../api/queries';
import { useWords } from '../api/words';
import { NARROWED_KINDS } from './use-narrowing';

/** What the first rows of a report can go by instead of the channel, with what it is called; and which of them an address means. */
export function useSplits(inAddress: string | null): { splits: [string, string][]; split: string | undefined } {
  const words = useWords();
  const fields = useQuery(fieldsQuery).data;
  const ofKind = NARROWED_KINDS.flatMap((kind) =>
    (fields ?? [])
      .filter(
        (field) => field.record === kind && canGroupBy(field) && field.type !== 'several-of' && field.key !== 'source',
      )
      .map(({ key, label }): [string, string] => [`${kind}.${key}`, `${label} of the ${words.one(kind)}`]),
  );
  const splits: [string, string][] = [['intake', 'intake'], ['team', `team of the ${words.one('deal')}`], ...ofKind];
  // Until the fields are read, the address is believed: the report is asked for once.
  const isKnown = !fields || splits.some(([key]) => key === inAddress);
  return { splits, split: (isKnown && inAddress) || undefined };
}
