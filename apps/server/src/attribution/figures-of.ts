import { SOURCE_SPLIT_INTAKE } from '@haycart/api';
import { ADDED, COUNTED, CREDITED, type Figure } from '@haycart/core';
import { isNarrowed } from './narrowing/narrowing';
import type { ReportWish } from './report-wish';

/** Figures that are of no record: costs are of whole campaigns, and views of a form have nobody who is known. */
const OF_NO_RECORD: readonly Figure[] = ['views', 'cost'];
const OF_DEALS: readonly Figure[] = ['deals', 'wonDeals', 'wonDays', 'value', 'won'];

/** The figures that such a report tells. A deal’s field tells nothing of contacts. */
export function figuresOf({ split, narrowing }: Pick<ReportWish, 'split' | 'narrowing'>): Figure[] {
  const isOfDeals = split !== null && split !== SOURCE_SPLIT_INTAKE && split.record === 'deal';
  if (isOfDeals) return [...OF_DEALS];
  const all: Figure[] = [...ADDED, ...COUNTED, ...CREDITED];
  return all.filter((figure) => !OF_NO_RECORD.includes(figure) || (split === null && !isNarrowed(narrowing)));
}
