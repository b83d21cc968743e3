import { JOURNEY_BASES } from '@haycart/api';
import { creditModel, worthIn, type CreditWish } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import type { ListSetting } from '../../records/lists/record-lists.service';
import type { ReportWish } from '../report-wish';
import { recordsAsked } from './records-asked';

/** Returns what is asked of journeys in memory. @throws ProblemError for a wrong filter. */
export async function creditWish(
  tx: WorkspaceTx,
  { from, to, model, window, halfLife, basis, narrowing }: ReportWish,
  setting: ListSetting,
): Promise<CreditWish> {
  const { defaultCurrency: own, rates = [] } = setting.destination;
  return {
    from: seconds(from),
    to: seconds(to),
    basis: JOURNEY_BASES.indexOf(basis),
    model: creditModel(model)!,
    settings: { halfLife },
    window,
    worth: worthIn(own, rates),
    among: await recordsAsked(tx, narrowing, setting),
  };
}

export function seconds(date: Date): number {
  return date.getTime() / 1_000;
}
