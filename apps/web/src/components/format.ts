import { differenceInCalendarDays, formatDistanceToNowStrict, isThisYear, isToday } from 'date-fns';
import { formatMoney, minorDigits, type Money } from '@haycart/core';

/** The one place that writes dates, numbers and money for people. */
const TIME = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
const SECOND = new Intl.DateTimeFormat('en-GB', { timeStyle: 'medium' });
const WEEKDAY = new Intl.DateTimeFormat('en-GB', { weekday: 'short' });
const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' });
const DAY_OF_YEAR = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
const EXACT = new Intl.DateTimeFormat('en-GB', { dateStyle: 'full', timeStyle: 'medium' });
const NUMBER = new Intl.NumberFormat('en-GB');

/** `10:41` today, `Mon 10:41` this week, `3 Nov` this year, `3 Nov 2025` before. */
export function shortTime(at: string): string {
  const date = new Date(at);
  if (isToday(date)) return TIME.format(date);
  if (Math.abs(differenceInCalendarDays(new Date(), date)) < 7) return `${WEEKDAY.format(date)} ${TIME.format(date)}`;
  return (isThisYear(date) ? DAY : DAY_OF_YEAR).format(date);
}

/** `10:41` */
export function timeOfDay(date: Date): string {
  return TIME.format(date);
}

/** `10:41:07` */
export function toTheSecond(at: string): string {
  return SECOND.format(new Date(at));
}

/** `3 Nov` */
export function shortDay(at: string): string {
  return DAY.format(new Date(at));
}

export function exactTime(at: string): string {
  return EXACT.format(new Date(at));
}

/** `14 minutes ago` */
export function ago(at: string): string {
  return formatDistanceToNowStrict(new Date(at), { addSuffix: true });
}

/** How long something has lasted, in one short word: `5 h`, `12 d`. */
export function age(since: string): string {
  const hours = Math.max(0, (Date.now() - Date.parse(since)) / 3_600_000);
  if (hours < 1) return `${Math.round(hours * 60)} min`;
  return hours < 48 ? `${Math.floor(hours)} h` : `${NUMBER.format(Math.floor(hours / 24))} d`;
}

export function count(value: number): string {
  return NUMBER.format(value);
}

export function money(value: Money): string {
  return formatMoney(value);
}

/** An amount where space is short: `£ 48k`, `£ 2.50m`. */
export function shortMoney({ amount, currency }: Money): string {
  const whole = amount / 10 ** minorDigits(currency);
  const symbol = { GBP: '£', EUR: '€', CAD: 'C$', USD: '$' }[currency] ?? currency;
  if (whole >= 1_000_000) return `${symbol} ${(whole / 1_000_000).toFixed(2)}m`;
  if (whole >= 1_000) return `${symbol} ${Math.round(whole / 1_000)}k`;
  return `${symbol} ${Math.round(whole)}`;
}

export function percent(share: number): string {
  return `${Math.round(share * 100)} %`;
}

/** Seconds with as many digits as matter. */
export function seconds(value: number): string {
  return value < 10
    ? `${value.toFixed(2)} s`
    : value < 120
      ? `${Math.round(value)} s`
      : `${Math.round(value / 60)} min`;
}

/** Seconds in their largest unit: `42 min`, `5 h`, `3 d`. */
export function timeSpan(value: number): string {
  const minutes = value / 60;
  if (minutes < 90) return `${Math.round(minutes)} min`;
  return minutes < 2_880 ? `${Math.round(minutes / 60)} h` : `${Math.round(minutes / 1_440)} d`;
}

const NUMBER_MARK: Record<string, string> = { contact: 'C', company: 'F', lead: 'L', deal: 'D' };

/** What people say for a record: `C-1094`. */
export function recordNumber(kind: string, number: number): string {
  return `${NUMBER_MARK[kind] ?? '?'}-${String(number).padStart(4, '0')}`;
}
