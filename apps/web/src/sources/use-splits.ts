import { canGroupBy } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { fieldsQuery } from '../api/queries';
import { useWords } from '../api/words';
import { NARROWED_KINDS } from './use-narrowing';

/** What the first rows of a report can go by instead of the channel, with what it is called. */
export function useSplits(): [string, string][] {
  const words = useWords();
  const fields = useQuery(fieldsQuery).data ?? [];
  const ofKind = NARROWED_KINDS.flatMap((kind) =>
    fields
      .filter(
        (field) => field.record === kind && canGroupBy(field) && field.type !== 'several-of' && field.key !== 'source',
      )
      .map(({ key, label }): [string, string] => [`${kind}.${key}`, `${label} of the ${words.one(kind)}`]),
  );
  return [['intake', 'Intake'], ...ofKind];
}
