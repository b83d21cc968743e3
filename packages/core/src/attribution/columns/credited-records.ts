import { eachDeal, type CreditWish } from './each-deal';
import type { JourneyColumns } from './journey-columns';

/** A deal behind a figure. */
export interface CreditedRecord {
  nr: number;
  /** What it counts for, and what of that the sources are credited with, in minor units; null without a rate. */
  worth: number | null;
  credited: number | null;
}

export interface BehindWish {
  /** Deals that were begun, or won. */
  figure: 'made' | 'won';
  /** Ids of sources; 0 stands for deals without a touch that counts. */
  sources: ReadonlySet<number>;
  /** Only deals with this value of what the first rows go by; null: any. */
  part: { of: Int32Array; is: number } | null;
  /** No more than so many are returned. */
  most: number;
}

/** Returns the deals behind a figure and how many there are, those credited with most first. */
export function creditedRecords(
  columns: JourneyColumns,
  wish: CreditWish,
  { figure, sources, part, most }: BehindWish,
): { total: number; records: CreditedRecord[] } {
  const found: CreditedRecord[] = [];
  eachDeal(columns, wish, figure, ({ nr, start, shares, madeWorth, wonWorth }) => {
    if (part && (part.of[nr] ?? 0) !== part.is) return;
    let isAsked = shares.length === 0 && sources.has(0);
    let share = isAsked ? 1 : 0;
    for (let back = 0; back < shares.length; back += 1) {
      if (!sources.has(columns.source[start + back]!)) continue;
      isAsked = true;
      share += shares[shares.length - 1 - back]!;
    }
    if (!isAsked) return;
    const worth = figure === 'won' ? wonWorth : madeWorth;
    found.push({ nr, worth, credited: worth === null ? null : worth * share });
  });
  found.sort((one, other) => (other.credited ?? -Infinity) - (one.credited ?? -Infinity) || other.nr - one.nr);
  return { total: found.length, records: found.slice(0, most) };
}
