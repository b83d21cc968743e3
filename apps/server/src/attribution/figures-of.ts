import { SOURCE_SPLIT_INTAKE } from '@haycart/api';
import { ADDED, COUNTED, CREDITED, type Figure } from '@haycart/core';
import { isNarrowed } from './narrowing/narrowing';
import type { ReportWish } from './report-wish';

/** Figures without records: a cost belongs to a whole campaign, and who looked at a form is not known. */
const OF_NO_RECORD: readonly Figure[] = ['views', 'cost'];
const OF_DEALS: readonly Figure[] = ['deals', 'wonDeals', 'wonDays', 'value', 'won'];

/** Returns the figures that a report shows. When rows go by a field of deals, contacts and submissions have no row. */
export function figuresOf({ split, narrowing }: Pick<ReportWish, 'split' | 'narrowing'>): Figure[] {
  const isOfDeals = split !== null && split !== SOURCE_SPLIT_INTAKE && split.record === 'deal';
  if (isOfDeals) return [...OF_DEALS];
  const all: Figure[] = [...ADDED, ...COUNTED, ...CREDITED];
  return all.filter((figure) => !OF_NO_RECORD.includes(figure) || (split === null && !isNarrowed(narrowing)));
}
