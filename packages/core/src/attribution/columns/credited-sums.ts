import type { JourneyColumns } from './journey-columns';
import { eachDeal, isWithin, type CreditWish, type Period } from './each-deal';
import { SumsBySource, type SourceSums } from './sums-by-source';

/** The value of what the first rows go by, of each record by its number: a position in a list, 0 where nothing is said; null when they go by channel. */
export type PartOf = Int32Array | null;

/** What came of deals. */
export interface DealSums {
  rows: SourceSums<'deals' | 'wonDeals' | 'wonDays' | 'value' | 'won'>[];
  /** What is shared out in all, in minor units. */
  totals: { value: number; won: number };
  /** How many deals have a currency that no rate converts. */
  withoutRate: Map<string, number>;
}

/** The level of the last touch of a journey. */
const LAST = 5;
const DAY = 86_400;

/** Adds up what the touches of deals are credited with, by source and level (see `SourceSums`). */
export function creditedSums(columns: JourneyColumns, wish: CreditWish, partOf: PartOf): DealSums {
  const sums = new SumsBySource(['deals', 'wonDeals', 'wonDays', 'value', 'won']);
  const totals = { value: 0, won: 0 };
  const withoutRate = new Map<string, number>();
  eachDeal(columns, wish, ({ nr, start, shares, isMade, isWon, madeWorth, wonWorth }) => {
    const part = partOf?.[nr] ?? 0;
    const days = isWon ? (columns.wonAt[nr]! - columns.madeAt[nr]!) / DAY : 0;
    const add = (source: number, level: number, share: number) => {
      const row = sums.of(part, source, level);
      if (isMade) row.deals += 1;
      if (isWon) row.wonDeals += 1;
      row.wonDays += days;
      row.value += (madeWorth ?? 0) * share;
      row.won += (wonWorth ?? 0) * share;
    };
    for (let back = 0; back < shares.length; back += 1)
      add(columns.source[start + back]!, columns.level[start + back]!, shares[shares.length - 1 - back]!);
    if (shares.length === 0) add(0, LAST, 1);
    totals.value += madeWorth ?? 0;
    totals.won += wonWorth ?? 0;
    if (madeWorth === null || wonWorth === null) {
      const currency = columns.currencies[columns.currency[nr]!]!;
      withoutRate.set(currency, (withoutRate.get(currency) ?? 0) + 1);
    }
  });
  return { rows: sums.rows(), totals, withoutRate };
}

/** Counts contacts that were made, and leads that were qualified, by what they came by themselves. */
export function peopleSums(
  columns: JourneyColumns,
  { among, ...period }: Period & Pick<CreditWish, 'among'>,
  partOf: PartOf,
): SourceSums<'contacts' | 'qualified'>[] {
  const sums = new SumsBySource(['contacts', 'qualified']);
  for (let nr = 0; nr < columns.end; nr += 1) {
    if (among && !among[nr]) continue;
    const isContact = columns.is(nr, 'contact') && isWithin(columns.madeAt[nr]!, period);
    const isQualified = columns.is(nr, 'lead') && isWithin(columns.wonAt[nr]!, period);
    if (!isContact && !isQualified) continue;
    const key = isContact ? 'contacts' : 'qualified';
    const part = partOf?.[nr] ?? 0;
    const [start, count] = [columns.start(nr, 0), columns.count(nr, 0)];
    for (let at = start; at < start + count; at += 1) sums.of(part, columns.source[at]!, columns.level[at]!)[key] += 1;
    if (count === 0) sums.of(part, 0, LAST)[key] += 1;
  }
  return sums.rows();
}
