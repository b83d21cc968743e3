import { JOURNEY_KINDS, type JourneyColumns } from './journey-columns';
import { eachDeal, isWithin, type CreditWish, type Period } from './each-deal';
import { LAST_LEVEL, SumsBySource, type SourceSums } from './sums-by-source';

/** The value of what the first rows go by, of each record by its number: a position in a list, 0 where nothing is said; null when they go by channel. */
export type PartOf = Int32Array | null;

const OF_DEALS = ['deals', 'wonDeals', 'wonDays', 'value', 'won'] as const;
const OF_PEOPLE = ['contacts', 'qualified'] as const;
const DAY = 86_400;

/** What came of deals. */
export interface DealSums {
  rows: SourceSums<(typeof OF_DEALS)[number]>[];
  /** What is shared out in all, in minor units. */
  totals: { value: number; won: number };
  /** How many deals have a currency that no rate converts. */
  withoutRate: Map<string, number>;
}

/** Adds up what the touches of deals are credited with, by source and level (see `SourceSums`). */
export function creditedSums(columns: JourneyColumns, wish: CreditWish, partOf: PartOf): DealSums {
  const sums = new SumsBySource(OF_DEALS);
  const totals = { value: 0, won: 0 };
  const withoutRate = new Map<string, number>();
  eachDeal(columns, wish, 'either', ({ nr, start, shares, isMade, isWon, madeWorth, wonWorth }) => {
    const part = partOf?.[nr] ?? 0;
    const days = isWon ? (columns.wonAt[nr]! - columns.madeAt[nr]!) / DAY : 0;
    const add = (source: number, level: number, share: number) => {
      const own = sums.of(part, source);
      const at = level * sums.width;
      own[at]! += isMade ? 1 : 0;
      own[at + 1]! += isWon ? 1 : 0;
      own[at + 2]! += days;
      own[at + 3]! += (madeWorth ?? 0) * share;
      own[at + 4]! += (wonWorth ?? 0) * share;
    };
    for (let back = 0; back < shares.length; back += 1)
      add(columns.source[start + back]!, columns.level[start + back]!, shares[shares.length - 1 - back]!);
    if (shares.length === 0) add(0, LAST_LEVEL, 1);
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
): SourceSums<(typeof OF_PEOPLE)[number]>[] {
  const sums = new SumsBySource(OF_PEOPLE);
  const { kind, madeAt, wonAt, end } = columns;
  const [ofContacts, ofLeads] = [JOURNEY_KINDS.indexOf('contact'), JOURNEY_KINDS.indexOf('lead')];
  for (let nr = 0; nr < end; nr += 1) {
    if (among && !among[nr]) continue;
    const isContact = kind[nr] === ofContacts && isWithin(madeAt[nr]!, period);
    const isQualified = kind[nr] === ofLeads && isWithin(wonAt[nr]!, period);
    if (!isContact && !isQualified) continue;
    const figure = isContact ? 0 : 1;
    const part = partOf?.[nr] ?? 0;
    const [start, count] = [columns.start(nr, 0), columns.count(nr, 0)];
    for (let at = start; at < start + count; at += 1)
      sums.of(part, columns.source[at]!)[columns.level[at]! * sums.width + figure]! += 1;
    if (count === 0) sums.of(part, 0)[LAST_LEVEL * sums.width + figure]! += 1;
  }
  return sums.rows();
}
