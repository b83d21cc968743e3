import type { RecordKind } from '@haycart/core';

/** Kinds of record as addresses name them. */
export type RecordPlural = 'contacts' | 'companies' | 'leads' | 'deals';

export const PLURALS: Record<RecordKind, RecordPlural> = {
  contact: 'contacts',
  company: 'companies',
  lead: 'leads',
  deal: 'deals',
};
export const KIND_OF = Object.fromEntries(Object.entries(PLURALS).map(([kind, plural]) => [plural, kind])) as Record<
  RecordPlural,
  RecordKind
>;
