import { minorDigits, type ExchangeRate } from '@haycart/core';

/** Rates as parameters: currencies, days from which they hold, and what one minor unit is in minor units of the own currency; none where there are no rates. */
export function rateParameters(rates: readonly ExchangeRate[], own: string): string[][] {
  if (!rates.length) return [];
  return [
    rates.map(({ currency }) => currency),
    rates.map(({ from }) => from),
    rates.map(({ currency, rate }) => `${rate}e${minorDigits(own) - minorDigits(currency)}`),
  ];
}

/**
 * What a step `s` counts for in the own currency (`$5`) at the rate of a day (by the rates `$6` to `$8`, if there are any),
 * rounded half away from zero as `converted` of the core does; null without a rate, 0 without an amount. Amounts are whole
 * minor units, which float8 holds exactly.
 */
export function worthSql(day: string, hasRates: boolean): string {
  const converted = `(select round(s.amount * r.factor) from unnest($6::text[], $7::date[], $8::numeric[]) r (currency, since, factor)
      where r.currency = s.currency and r.since <= (${day})::date order by r.since desc limit 1)`;
  return `(case when s.amount is null then 0 when s.currency = $5 then s.amount ${hasRates ? `else ${converted} ` : ''}end)::float8`;
}
