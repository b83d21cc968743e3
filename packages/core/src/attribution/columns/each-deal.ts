import type { CreditModel, CreditSettings } from '../credit-model';
import { JOURNEY_KINDS, type JourneyColumns } from './journey-columns';
import type { Worth } from './worth';

/** From, and until before, in seconds since 1970. */
export interface Period {
  from: number;
  to: number;
}

/** What of the journeys of deals is asked. */
export interface CreditWish extends Period {
  /** Whose touches count: the position in `JOURNEY_BASES` of the API. */
  basis: number;
  model: CreditModel;
  settings: CreditSettings;
  /** Days before a deal was begun in which touches count; null: however long ago. */
  window: number | null;
  worth: Worth;
  /** Which records it is about, by their number; null: all. */
  among: Uint8Array | null;
}

/** A deal that was begun or won in a period. One object is used for all of them, one after the other. */
export interface CreditedDeal {
  nr: number;
  /** The place of its latest touch. Earlier ones follow. */
  start: number;
  /** The share of each touch that counts, the earliest first; empty when there is none. */
  shares: readonly number[];
  isMade: boolean;
  isWon: boolean;
  /** In minor units of the own currency, at the rates of the day when it was begun, and when it was won; null without a rate. */
  madeWorth: number | null;
  wonWorth: number | null;
}

const DAY = 86_400;
const WHOLE = [1];

/** Calls `take` with each deal that was begun, won, or either of it in the period, in the order of their numbers. */
export function eachDeal(
  columns: JourneyColumns,
  wish: CreditWish,
  which: 'made' | 'won' | 'either',
  take: (deal: CreditedDeal) => void,
): void {
  const { kind, madeAt, wonAt, end } = columns;
  const { among, worth } = wish;
  const ofDeals = JOURNEY_KINDS.indexOf('deal');
  const deal: CreditedDeal = { nr: 0, start: 0, shares: [], isMade: false, isWon: false, madeWorth: 0, wonWorth: 0 };
  for (let nr = 0; nr < end; nr += 1) {
    if (kind[nr] !== ofDeals || (among && !among[nr])) continue;
    deal.isMade = which !== 'won' && isWithin(madeAt[nr]!, wish);
    deal.isWon = which !== 'made' && isWithin(wonAt[nr]!, wish);
    if (!deal.isMade && !deal.isWon) continue;
    deal.nr = nr;
    deal.start = columns.start(nr, wish.basis);
    deal.shares = sharesOf(columns, deal, wish);
    deal.madeWorth = deal.isMade ? worth(columns, nr, madeAt[nr]!) : 0;
    deal.wonWorth = deal.isWon ? worth(columns, nr, wonAt[nr]!) : 0;
    take(deal);
  }
}

export function isWithin(time: number, { from, to }: Period): boolean {
  return time >= from && time < to;
}

function sharesOf(columns: JourneyColumns, { nr, start }: CreditedDeal, wish: CreditWish): readonly number[] {
  const all = columns.count(nr, wish.basis);
  const since = wish.window === null ? -Infinity : columns.madeAt[nr]! - wish.window * DAY;
  let count = 0;
  while (count < all && columns.at[start + count]! >= since) count += 1;
  if (count === 0) return [];
  if (count === 1) return WHOLE;
  const times: number[] = [];
  for (let back = count - 1; back >= 0; back -= 1) times.push(columns.at[start + back]! * 1_000);
  return wish.model.shares(times, wish.settings);
}
