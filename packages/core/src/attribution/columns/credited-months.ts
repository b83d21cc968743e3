import { eachDeal, type CreditWish } from './each-deal';
import type { JourneyColumns } from './journey-columns';

/** What was won in a month by what came of one source. */
export interface MonthShare {
  /** `2026-03`, by UTC. */
  month: string;
  /** Null: no touch led to it. */
  source: number | null;
  /** The exact share that it is credited with, in minor units. */
  won: number;
}

/** Shares out what was won in a period, by month and source; `totals` are what is shared out at each month. */
export function creditedMonths(
  columns: JourneyColumns,
  wish: CreditWish,
): { rows: MonthShare[]; totals: Map<string, number> } {
  const rows = new Map<string, Map<number, MonthShare>>();
  const totals = new Map<string, number>();
  const monthOf = monthNames();
  eachDeal(columns, wish, 'won', ({ nr, start, shares, wonWorth }) => {
    if (!wonWorth) return;
    const month = monthOf(columns.wonAt[nr]!);
    let sources = rows.get(month);
    if (!sources) rows.set(month, (sources = new Map()));
    const own = sources;
    const add = (source: number, share: number) => {
      const row = own.get(source);
      if (row) row.won += wonWorth * share;
      else own.set(source, { month, source: source || null, won: wonWorth * share });
    };
    shares.forEach((share, at) => add(columns.source[start + shares.length - 1 - at]!, share));
    if (shares.length === 0) add(0, 1);
    totals.set(month, (totals.get(month) ?? 0) + wonWorth);
  });
  return { rows: [...rows.values()].flatMap((sources) => [...sources.values()]), totals };
}

/** Names the month of a time in seconds. Each day is looked at once. */
function monthNames(): (seconds: number) => string {
  const known = new Map<number, string>();
  return (seconds) => {
    const day = Math.floor(seconds / 86_400);
    let name = known.get(day);
    if (name === undefined) known.set(day, (name = new Date(day * 86_400_000).toISOString().slice(0, 7)));
    return name;
  };
}
