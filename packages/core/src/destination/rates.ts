import type { Money } from '../diff/record';
import { error, type Problem } from '../problem';
import { minorDigits } from '../reading/money';

/** What one unit of a currency is worth in the workspace's own, from a day on until a later rate. */
export interface ExchangeRate {
  currency: string;
  /** ISO 8601 day. */
  from: string;
  /** As a decimal text, so that nothing is lost: `0.8532`. */
  rate: string;
}

/** The rate that holds on a day, or `null` when none does yet. */
export function rateOn(rates: readonly ExchangeRate[], currency: string, day: string): ExchangeRate | null {
  let found: ExchangeRate | null = null;
  for (const rate of rates) {
    if (rate.currency === currency && rate.from <= day && (found === null || rate.from > found.from)) found = rate;
  }
  return found;
}

/** An amount in another currency on a day, rounded half away from zero to its minor unit; `null` without a rate. */
export function converted(
  { amount, currency }: Money,
  into: string,
  day: string,
  rates: readonly ExchangeRate[],
): Money | null {
  if (currency === into) return { amount, currency };
  const rate = rateOn(rates, currency, day);
  if (!rate) return null;
  const shifted = amount * Number(rate.rate) * 10 ** (minorDigits(into) - minorDigits(currency));
  return { amount: Math.sign(shifted) * Math.round(Math.abs(shifted)), currency: into };
}

/** The sum of amounts in one currency, and those that no rate converts. */
export function totalIn(
  amounts: readonly Money[],
  into: string,
  day: string,
  rates: readonly ExchangeRate[],
): { total: Money; without: string[] } {
  let sum = 0;
  const without = new Set<string>();
  for (const one of amounts) {
    const money = converted(one, into, day, rates);
    if (money) sum += money.amount;
    else without.add(one.currency);
  }
  return { total: { amount: sum, currency: into }, without: [...without].sort() };
}

/** What is wrong with a rate. */
export function checkRate({ currency, from, rate }: ExchangeRate, own: string): Problem[] {
  const problems: Problem[] = [];
  if (!/^[A-Z]{3}$/.test(currency))
    problems.push(error('unknown-currency', `“${currency}” is no currency code such as EUR.`, '/currency'));
  else if (currency === own)
    problems.push(error('own-currency', `${own} is the workspace's own currency; it needs no rate.`, '/currency'));
  const day = Date.parse(`${from}T00:00:00Z`);
  if (!/^\d{4}-\d{2}-\d{2}$/.test(from) || Number.isNaN(day))
    problems.push(error('not-a-day', 'A rate holds from a day such as 2026-01-01.', '/from'));
  if (!/^\d{1,9}(\.\d{1,9})?$/.test(rate) || Number(rate) <= 0)
    problems.push(error('not-a-rate', 'A rate is a number above zero such as 0.8532.', '/rate'));
  return problems;
}
