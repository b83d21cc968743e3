import { minorDigits, type ExchangeRate } from '@haycart/core';

/** Rates as parameters: currencies, days from which they hold, and what one minor unit is in minor units of the own currency. */
export function rateParameters(rates: readonly ExchangeRate[], own: string): [string[], string[], string[]] {
  return [
    rates.map(({ currency }) => currency),
    rates.map(({ from }) => from),
    rates.map(({ currency, rate }) => `${rate}e${minorDigits(own) - minorDigits(currency)}`),
  ];
}

/**
 * What a deal `d` is worth in the own currency at the rate of a day, rounded half away from zero as `converted` of the core
 * does; null without a rate, 0 without an amount.
 *
 * @param rates The number of the first of the three parameters of `rateParameters`. @param own That of the own currency.
 */
export function worthSql(day: string, own: number, rates: number): string {
  return `case when d.value_amount is null then 0 when d.value_currency = $${own} then d.value_amount
    else (select round(d.value_amount * r.factor) from unnest($${rates}::text[], $${rates + 1}::date[], $${rates + 2}::numeric[]) r (currency, since, factor)
      where r.currency = d.value_currency and r.since <= (${day})::date order by r.since desc limit 1) end`;
}
