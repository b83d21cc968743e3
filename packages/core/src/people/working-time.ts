import { TZDate } from '@date-fns/tz';
import { remembered } from '../remembered';
import { localMoment, WEEKDAYS, type Person, type WorkingHours } from './person';

/** After how long something is due: working hours and minutes count only while its person works, working days end when they do. */
export interface DueIn {
  in: number;
  unit: 'hours' | 'days';
  working?: boolean | undefined;
}

/** When somebody works. */
export type Availability = Pick<Person, 'timeZone' | 'hours' | 'away'>;

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
/** The hours of somebody of whom none are known: Monday to Friday. */
const USUAL: WorkingHours = Object.fromEntries(
  WEEKDAYS.slice(0, 5).map((day) => [day, { from: '09:00', to: '17:00' }]),
);
const ANYBODY: Availability = { timeZone: null, hours: {}, away: [] };
/** Nobody is away, or without hours, for so many days on end; whoever is has the time count as any other. */
const FURTHEST = 800;

/**
 * When something is due that begins at a moment (ISO 8601); whole hours and days of the clock where working time is not asked
 * for. A due time that starts on a free day counts from the next hour at work.
 */
export function dueAt(
  from: string,
  { in: amount, unit, working = false }: Omit<DueIn, 'unit'> & { unit: DueIn['unit'] | 'minutes' },
  who?: Availability,
): string {
  const begin = Date.parse(from);
  const length = amount * { minutes: MINUTE, hours: HOUR, days: DAY }[unit];
  const plain = () => new Date(begin + length).toISOString();
  if (!working) return plain();
  let left = unit === 'days' ? amount : length;
  const { day: firstDay } = localMoment(from, who?.timeZone ?? 'UTC');
  for (let nth = 0; nth < FURTHEST; nth += 1) {
    const span = spanOf(dayAfter(firstDay, nth), who);
    if (!span || span.to <= begin) continue;
    if (unit === 'days') {
      // The day on which it begins is not one of those to wait.
      if (nth > 0) left -= 1;
      if (left <= 0) return new Date(span.to).toISOString();
      continue;
    }
    const opens = Math.max(span.from, begin);
    if (left <= span.to - opens) return new Date(opens + left).toISOString();
    left -= span.to - opens;
  }
  return plain();
}

/**
 * Returns how much working time somebody has between two moments (ISO 8601), in milliseconds; all of it where the moments are
 * too far apart to be counted by days.
 */
export function workBetween(from: string, to: string, who?: Availability): number {
  const [begin, end] = [Date.parse(from), Date.parse(to)];
  if (end - begin > FURTHEST * DAY) return end - begin;
  const { day: firstDay } = localMoment(from, who?.timeZone ?? 'UTC');
  let worked = 0;
  for (let nth = 0; ; nth += 1) {
    const day = dayAfter(firstDay, nth);
    // A day begins at most 14 hours before it does in UTC.
    if (Date.parse(`${day}T00:00:00Z`) - 14 * HOUR > end) return worked;
    const span = spanOf(day, who);
    if (span) worked += Math.max(0, Math.min(span.to, end) - Math.max(span.from, begin));
  }
}

function dayAfter(day: string, days: number): string {
  return new Date(Date.parse(`${day}T12:00:00Z`) + days * DAY).toISOString().slice(0, 10);
}

/** From when to when somebody works on a day of their calendar, in milliseconds; `null` on a free one. */
function spanOf(day: string, { timeZone, hours, away }: Availability = ANYBODY): { from: number; to: number } | null {
  if (away.some(({ from, to }) => from <= day && day <= to)) return null;
  // `getUTCDay` begins the week on Sunday.
  const weekday = WEEKDAYS[(new Date(`${day}T12:00:00Z`).getUTCDay() + 6) % 7]!;
  const span = (Object.keys(hours).length ? hours : USUAL)[weekday];
  if (!span) return null;
  const moment = (time: string) => momentOf(`${day} ${time} ${timeZone ?? 'UTC'}`);
  return { from: moment(span.from), to: moment(span.to) };
}

/** A day, a time of the clock and a time zone as a moment, in milliseconds; remembered, since many tasks are due at the same. */
const momentOf = remembered((text) => {
  const [day = '', time = '', timeZone] = text.split(' ');
  const [year, month, date] = numbersIn(day, '-');
  const [hour, minute] = numbersIn(time, ':');
  return new TZDate(year!, month! - 1, date!, hour!, minute!, timeZone!).getTime();
});

function numbersIn(text: string, between: string): number[] {
  return text.split(between).map(Number);
}
