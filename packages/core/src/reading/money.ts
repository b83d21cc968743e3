import type { Money } from '../diff/record';

const SYMBOLS: Record<string, string> = { '£': 'GBP', '€': 'EUR', $: 'USD', C$: 'CAD', CA$: 'CAD' };
/** ISO 4217 currencies whose minor unit is not a hundredth. */
const MINOR_DIGITS: Record<string, number> = { JPY: 0, KRW: 0, ISK: 0, CLP: 0, BHD: 3, KWD: 3, OMR: 3, TND: 3 };

/** Longer texts are no amounts. */
const LONGEST = 200;
const AMOUNT = /^(-?) ?([A-Z]{3}|[A-Z]{0,2}[£€$])? ?(-?) ?(\d[\d.,' ]*)([A-Z]{3}|[£€$])?$/i;

/** How many digits the minor unit of an ISO 4217 currency has. */
export function minorDigits(currency: string): number {
  return MINOR_DIGITS[currency] ?? 2;
}

/**
 * Reads an amount with an optional currency symbol or ISO 4217 code on either side. A separator followed by exactly
 * three digits groups thousands; the last separator followed by one or two digits starts the decimals.
 *
 * @example readMoney('€ 12.500,50', 'GBP') // { amount: 1250050, currency: 'EUR' }
 * @returns `null` when the text is no amount.
 */
export function readMoney(text: string, defaultCurrency: string): Money | null {
  if (text.length > LONGEST) return null;
  const found = AMOUNT.exec(text.trim().replace(/[ \t\u00a0\u202f]+/g, ' '));
  if (!found) return null;
  const [, minusFirst, before, minusLater, digits, after] = found;
  const mark = (before ?? after)?.toUpperCase();
  const currency =
    mark === undefined ? defaultCurrency : (SYMBOLS[mark] ?? (/^[A-Z]{3}$/.test(mark) ? mark : undefined));
  const plain = plainDecimal(digits!);
  if (currency === undefined || plain === null) return null;
  const amount = Math.round(Number(plain) * 10 ** minorDigits(currency));
  if (!Number.isSafeInteger(amount)) return null;
  return { amount: minusFirst || minusLater ? -amount : amount, currency };
}

/** `12.500,50`, `12,500.50`, `12 500` as a plain decimal; `null` when the grouping makes no sense. */
export function plainDecimal(text: string): string | null {
  const tight = text.replace(/[' \u00a0]/g, '');
  const last = Math.max(tight.lastIndexOf('.'), tight.lastIndexOf(','));
  if (last === -1) return /^\d+$/.test(tight) ? tight : null;
  if (!/^\d*$/.test(tight.slice(last + 1))) return null;
  const mark = tight[last]!;
  const decimals = tight.length - last - 1;
  const repeated = tight.indexOf(mark) !== last;
  const groupsOnly =
    decimals === 3 && (repeated || /^\d{1,3}$/.test(tight.slice(0, last)) || /^\d{1,3}([.,]\d{3})+$/.test(tight));
  const whole = groupsOnly ? tight : tight.slice(0, last);
  if (!/^\d{1,3}([.,]\d{3})*$|^\d+$/.test(whole) || (repeated && !groupsOnly)) return null;
  const joined = whole.replace(/[.,]/g, '');
  return groupsOnly ? joined : `${joined}.${tight.slice(last + 1) || '0'}`;
}

/** An amount for people, such as `£ 48,000.00`. */
export function formatMoney({ amount, currency }: Money): string {
  const digits = minorDigits(currency);
  const text = (amount / 10 ** digits).toLocaleString('en-GB', {
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
  });
  const symbol = { GBP: '£', EUR: '€', CAD: 'C$', USD: '$' }[currency] ?? currency;
  return `${symbol} ${text}`;
}
