import { RECORD_KINDS, type RecordsDiff } from '@haycart/core';
import type { TakeBackRehearsal } from '@haycart/api';

/** Every record that a diff names. */
export function idsIn({ created, changed, removed, linked, unlinked }: RecordsDiff): string[] {
  const ends = [...linked, ...unlinked].flatMap(({ from, to }) => [from, to]);
  return [...Object.keys(created), ...Object.keys(changed), ...Object.keys(removed), ...ends];
}

/** How many records a diff removes, by kind, and how many it changes in how many values. */
export function countsOf(diff: RecordsDiff): Pick<TakeBackRehearsal, 'removed' | 'changed' | 'values'> {
  const kinds = Object.values(diff.removed).map(({ kind }) => kind);
  return {
    removed: Object.fromEntries(
      RECORD_KINDS.flatMap((kind) => {
        const count = kinds.filter((one) => one === kind).length;
        return count ? [[kind, count]] : [];
      }),
    ),
    changed: Object.keys(diff.changed).length,
    values: Object.values(diff.changed).reduce((sum, { fields }) => sum + Object.keys(fields).length, 0),
  };
}
