import type { ListFilterChoice } from './list-filter';

/** How far back a list looks. */
export const PERIODS = { day: 'last 24 hours', week: 'last 7 days', month: 'last 30 days', all: 'all time' } as const;
export type Period = keyof typeof PERIODS;

/** The period that an address names; all time where it names none. */
export function periodIn(text: string | null): Period {
  return text !== null && Object.hasOwn(PERIODS, text) ? (text as Period) : 'all';
}

/** What narrows a list to a period. */
export function periodFilter(label: string, period: Period, choose: ListFilterChoice['choose']): ListFilterChoice {
  const options = Object.entries(PERIODS).filter(([key]) => key !== 'all');
  return { label, any: PERIODS.all, value: period === 'all' ? '' : period, options, choose };
}

const DAYS: Record<Period, number | null> = { day: 1, week: 7, month: 30, all: null };

/** The beginning of a period, to the minute so that it stays the same while one looks. */
export function sinceOf(period: Period): string | undefined {
  const days = DAYS[period];
  if (days === null) return undefined;
  return new Date(Math.floor(Date.now() / 60_000) * 60_000 - days * 86_400_000).toISOString();
}
