/** A period of whole days in UTC, both ends in it. */
export interface Days {
  from: string;
  to: string;
}

export const REPORT_PERIODS: Readonly<Record<string, string>> = {
  'last-week': 'last week',
  '30': 'the last 30 days',
  '90': 'the last 90 days',
  '365': 'the last 365 days',
  quarter: 'this quarter',
  'last-quarter': 'last quarter',
  year: 'this year',
  'last-year': 'last year',
};
export const USUAL_PERIOD = '90';

const DAY = 86_400_000;
const dayOf = (time: number) => new Date(time).toISOString().slice(0, 10);
const firstOf = (year: number, month: number) => Date.UTC(year, month, 1);

/** The days of a period named in an address, or between two days as `2026-09-01..2026-11-30`; the usual where it names none. */
export function daysOf(named: string | null, today: number): Days {
  const [, from, to] = /^(\d{4}-\d{2}-\d{2})\.\.(\d{4}-\d{2}-\d{2})$/.exec(named ?? '') ?? [];
  if (from && to && isDay(from) && isDay(to) && from <= to) return { from, to };
  const now = new Date(today);
  const year = now.getUTCFullYear();
  const quarter = Math.floor(now.getUTCMonth() / 3) * 3;
  const between = (first: number, after: number) => ({ from: dayOf(first), to: dayOf(after - DAY) });
  const monday = Date.UTC(year, now.getUTCMonth(), now.getUTCDate() - ((now.getUTCDay() + 6) % 7));
  switch (named) {
    case 'last-week':
      return between(monday - 7 * DAY, monday);
    case 'quarter':
      return { from: dayOf(firstOf(year, quarter)), to: dayOf(today) };
    case 'last-quarter':
      return between(firstOf(year, quarter - 3), firstOf(year, quarter));
    case 'year':
      return { from: dayOf(firstOf(year, 0)), to: dayOf(today) };
    case 'last-year':
      return between(firstOf(year - 1, 0), firstOf(year, 0));
    default: {
      const days = Number(named !== null && Object.hasOwn(REPORT_PERIODS, named) ? named : USUAL_PERIOD);
      return { from: dayOf(today - (days - 1) * DAY), to: dayOf(today) };
    }
  }
}

/** What a period is compared with: as many days before it, or the same days a year before. */
export function comparedDays({ from, to }: Days, against: 'before' | 'year'): Days {
  if (against === 'year') return { from: yearBefore(from), to: yearBefore(to) };
  const days = (Date.parse(to) - Date.parse(from)) / DAY + 1;
  return { from: dayOf(Date.parse(from) - days * DAY), to: dayOf(Date.parse(from) - DAY) };
}

/** The 29th of February becomes the 28th. */
function yearBefore(day: string): string {
  const [year, rest] = [Number(day.slice(0, 4)) - 1, day.slice(4)];
  return `${year}${rest === '-02-29' ? '-02-28' : rest}`;
}

function isDay(text: string): boolean {
  const time = Date.parse(text);
  return !Number.isNaN(time) && dayOf(time) === text;
}
