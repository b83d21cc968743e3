import type { SourcesReport } from '@haycart/api';
import { apportion } from '@haycart/core';

/** What was won in a month by what came of one channel. */
export interface MonthShare {
  /** `2026-03` */
  month: string;
  channel: string;
  /** The exact share that it is credited with, null when no rate converts it; and what is shared out at it. */
  won: number | null;
  ofWon: number;
}

/** The number of months told apart. */
const MONTHS = 12;

/** The first moment of the months that end with a moment. */
export function firstOfMonths(end: Date): Date {
  return monthsBefore(end, MONTHS);
}

/** The channels of each month, rounded so that they add up to what was won in it; of a month without, none. */
export function byMonth(rows: readonly MonthShare[], end: Date): SourcesReport['months'] {
  return Array.from({ length: MONTHS }, (_, ago) => monthsBefore(end, MONTHS - ago)).map((first) => {
    const month = first.toISOString().slice(0, 7);
    const own = rows.filter((row) => row.month === month);
    const channels = new Map<string, number>();
    for (const { channel, won } of own) channels.set(channel, (channels.get(channel) ?? 0) + Number(won ?? 0));
    const brought = [...channels].filter(([, won]) => won > 0);
    const whole = own.reduce((sum, { ofWon }) => sum + Number(ofWon), 0);
    const parts = apportion(
      whole,
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
