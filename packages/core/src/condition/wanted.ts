import { plainDecimal, readMoney } from '../reading/money';
import type { FieldType } from '../field/field-definition';

/** What was typed beside a test, read as the test needs it; a sentence when it cannot be. */

export function wantedTexts(wanted: unknown): string[] | string {
  const texts = [wanted]
    .flat()
    .filter((text): text is string | number => typeof text === 'string' || typeof text === 'number');
  const filled = texts.map(String).filter((text) => text !== '');
  return filled.length ? filled : 'Type what to compare with.';
}

export function wantedOptions(wanted: unknown): string[] | string {
  const texts = wantedTexts(wanted);
  return typeof texts === 'string' ? 'Choose at least one.' : texts;
}

/** A number, or for money an amount in minor units with its currency. */
export function wantedNumber(
  wanted: unknown,
  { type, defaultCurrency }: { type: FieldType; defaultCurrency: string },
): { number: number; currency?: string } | string {
  if (type === 'money') {
    const money = isAmount(wanted) ? wanted : readMoney(String(wanted ?? ''), defaultCurrency);
    return money ? { number: money.amount, currency: money.currency } : 'Type an amount such as GBP 1,200.';
  }
  if (typeof wanted === 'number' && Number.isFinite(wanted)) return { number: wanted };
  const text = String(wanted ?? '').trim();
  const plain = plainDecimal(text.replace(/^-/, ''));
  return plain === null ? 'Type a number.' : { number: text.startsWith('-') ? -Number(plain) : Number(plain) };
}

export function wantedDate(wanted: unknown): { date: string } | string {
  const text = String(wanted ?? '');
  const time = Date.parse(`${text}T00:00:00Z`);
  return /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(time) && new Date(time).toISOString().startsWith(text)
    ? { date: text }
    : 'Choose a date.';
}

export function wantedDays(wanted: unknown): number | string {
  const days = Number(wanted);
  return Number.isInteger(days) && days >= 1 && days <= 36_500 ? days : 'Type a number of days from 1 to 36500.';
}

/** A date so many days later (or earlier). */
export function dayAfter(date: string, days: number): string {
  return new Date(Date.parse(`${date}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);
}

function isAmount(wanted: unknown): wanted is { amount: number; currency: string } {
  const { amount, currency } = (wanted ?? {}) as { amount?: unknown; currency?: unknown };
  return Number.isSafeInteger(amount) && typeof currency === 'string';
}
