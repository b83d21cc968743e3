import type { SourcesReport } from '@haycart/api';
import { apportion, type MonthShare } from '@haycart/core';

/** The number of months told apart. */
const MONTHS = 12;

/** The first moment of the months that end with a moment. */
export function firstOfMonths(end: Date): Date {
  return monthsBefore(end, MONTHS);
}

/** The channels of each month, rounded so that they add up to what was won in it; of a month without, none. */
export function byMonth(
  { rows, totals }: { rows: readonly MonthShare[]; totals: ReadonlyMap<string, number> },
  channelOf: (source: number | null) => string,
  end: Date,
): SourcesReport['months'] {
  return Array.from({ length: MONTHS }, (_, ago) => monthsBefore(end, MONTHS - ago)).map((first) => {
    const month = first.toISOString().slice(0, 7);
    const channels = new Map<string, number>();
    for (const row of rows) {
      if (row.month !== month) continue;
      const channel = channelOf(row.source);
      channels.set(channel, (channels.get(channel) ?? 0) + row.won);
    }
    const brought = [...channels].filter(([, won]) => won > 0);
    const parts = apportion(
      totals.get(month) ?? 0,
      brought.map(([, won]) => won),
    );
    return { month, channels: brought.map(([channel], index) => ({ channel, won: parts[index]! })) };
  });
}

/** The first moment of the month that is the last of so many, which end with the one before a moment. */
function monthsBefore(end: Date, count: number): Date {
  const last = new Date(end.getTime() - 1);
  return new Date(Date.UTC(last.getUTCFullYear(), last.getUTCMonth() - count + 1, 1));
}
