import type { LikenessModel } from './model';
import type { ComparedRecord } from './compared';

/** Values kept for each field: rarer ones count as rare anyway. */
const MOST_VALUES = 500;

/** The two records that are compared do not make their own value common. */
const PAIR = 2;
/** In few records nothing is common yet. */
const SMOOTHING = 100;

/** By field, the values that several of the records have, with the share of the records that has each. */
export function commonValues(records: readonly ComparedRecord[]): LikenessModel['common'] {
  const counts: Record<string, Map<string, number>> = {};
  const count = (field: string, values: readonly string[]) => {
    const own = (counts[field] ??= new Map());
    for (const value of new Set(values)) own.set(value, (own.get(value) ?? 0) + 1);
  };
  for (const record of records) {
    count('given', record.name?.given.slice(0, 1) ?? []);
    count('family', record.name?.family.length ? [record.name.family.join('')] : []);
    count('email', record.mailboxes);
    count('phone', record.phones);
    count('company', [...record.companies.ids, ...record.companies.domains]);
    count('country', record.country ? [record.country] : []);
    count('name', record.firmName ? [record.firmName.text] : []);
    count('domain', record.domain ? [record.domain] : []);
    count('contact', record.contacts);
    count('job', record.job.length ? [record.job.join(' ')] : []);
  }
  return Object.fromEntries(
    Object.entries(counts).map(([field, own]) => [
      field,
      Object.fromEntries(
        [...own]
          .filter(([, times]) => times > PAIR)
          .sort(([, a], [, b]) => b - a)
          .slice(0, MOST_VALUES)
          .map(([value, times]) => [value, (times - PAIR) / (records.length + SMOOTHING)]),
      ),
    ]),
  );
}
