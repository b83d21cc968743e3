import { JOURNEY_BASES } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { Values } from '../platform/database/values';
import type { ListSetting } from '../records/lists/record-lists.service';
import { narrowedRecords, narrowedSubmissions } from './narrowing/narrowing';
import { joinedRecords, joinedSubmissions } from './narrowing/split';
import type { ReportWish } from './report-wish';
import type { SumsWish } from './sources-sql';
import { rateParameters } from './worth-sql';

/** What a statement of the report is made from, and its parameters. */
export interface Statement<Wish> {
  wish: Wish;
  values: Values;
}

/** What rows are split by; null for statements that have no rows of parts. */
type Apart = Pick<ReportWish, 'split'>;

/** For statements about deals: parameters as `dealsSql` has them. */
export function aboutDeals(
  tx: WorkspaceTx,
  wish: ReportWish,
  setting: ListSetting,
  apart: Apart = wish,
): Statement<SumsWish> {
  const { defaultCurrency: own, rates = [] } = setting.destination;
  const money = [own, ...rateParameters(rates, own)];
  return about(tx, { ...wish, ...apart }, setting, { money, hasRates: rates.length > 0 });
}

/** For statements that count deals and add no money up: the first four parameters. */
export function countingDeals(tx: WorkspaceTx, wish: ReportWish, setting: ListSetting): Statement<SumsWish> {
  return about(tx, { ...wish, split: null }, setting, { money: [], hasRates: false });
}

function about(
  tx: WorkspaceTx,
  wish: ReportWish,
  setting: ListSetting,
  { money, hasRates }: { money: unknown[]; hasRates: boolean },
): Statement<SumsWish> {
  const values = new Values([tx.workspaceId, wish.from, wish.to, JOURNEY_BASES.indexOf(wish.basis), ...money]);
  const { model, window, halfLife } = wish;
  return { values, wish: { model, window, halfLife, hasRates, ...ofRecords(wish, setting, values) } };
}

/** For statements about contacts and leads. */
export function aboutPeople(
  tx: WorkspaceTx,
  wish: ReportWish,
  setting: ListSetting,
): Statement<Pick<SumsWish, 'narrowed' | 'split'>> {
  const values = new Values([tx.workspaceId, wish.from, wish.to]);
  return { values, wish: ofRecords(wish, setting, values) };
}

/** For statements about submissions. */
export function aboutSubmissions(
  tx: WorkspaceTx,
  { from, to, narrowing, split }: ReportWish,
  setting: ListSetting,
): Statement<Pick<SumsWish, 'narrowed' | 'split'>> {
  const values = new Values([tx.workspaceId, from, to]);
  const narrowed = narrowedSubmissions(narrowing, 'v.id', setting, values);
  return { values, wish: { narrowed, split: split ? joinedSubmissions(split, 'v.id', values) : '' } };
}

function ofRecords({ narrowing, split }: ReportWish, setting: ListSetting, values: Values) {
  const narrowed = narrowedRecords(narrowing, 's.record_id', setting, values);
  return { narrowed, split: split ? joinedRecords(split, 's.record_id', values) : '' };
}
