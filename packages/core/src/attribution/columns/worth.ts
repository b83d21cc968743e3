import { converted, rateOn, type ExchangeRate } from '../../destination/rates';
import type { JourneyColumns } from './journey-columns';

/** Returns what a record is worth in the own currency, in minor units, at the rate of a day: 0 without an amount, null without a rate. */
export type Worth = (columns: JourneyColumns, nr: number, seconds: number) => number | null;

const DAY = 86_400;

/** Amounts by the rates of a workspace. The rate of each currency and day is looked for once. */
export function worthIn(own: string, rates: readonly ExchangeRate[]): Worth {
  const known = new Map<string, ExchangeRate[]>();
  const ratesOf = (currency: string, dayNr: number): ExchangeRate[] => {
    const key = `${currency} ${dayNr}`;
    const found = known.get(key);
    if (found) return found;
    const rate = rateOn(rates, currency, dayOf(dayNr));
    const only = rate ? [rate] : [];
    known.set(key, only);
    return only;
  };
  return ({ amount: amounts, currency: currencies, currencies: names }, nr, seconds) => {
    const amount = amounts[nr]!;
    const currency = names[currencies[nr]!]!;
    if (Number.isNaN(amount)) return 0;
    if (currency === own) return amount;
    const dayNr = Math.floor(seconds / DAY);
    return converted({ amount, currency }, own, dayOf(dayNr), ratesOf(currency, dayNr))?.amount ?? null;
  };
}

function dayOf(dayNr: number): string {
  return new Date(dayNr * DAY * 1_000).toISOString().slice(0, 10);
}
