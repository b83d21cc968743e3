import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { formatMoney, minorDigits, plainDecimal, readMoney } from './money';

const CURRENCIES = ['GBP', 'EUR', 'CAD', 'USD', 'JPY', 'KWD', 'CHF'];
const money = fc.record({
  currency: fc.constantFrom(...CURRENCIES),
  amount: fc.integer({ min: -(10 ** 12), max: 10 ** 12 }),
});

describe('an amount', () => {
  test.each([
    ['£48,000', { amount: 4_800_000, currency: 'GBP' }],
    ['€ 12.500,50', { amount: 1_250_050, currency: 'EUR' }],
    ['12,500.50', { amount: 1_250_050, currency: 'GBP' }],
    ['1.000', { amount: 100_000, currency: 'GBP' }],
    ['1.50', { amount: 150, currency: 'GBP' }],
    ['GBP 12 000', { amount: 1_200_000, currency: 'GBP' }],
    ['500 CAD', { amount: 50_000, currency: 'CAD' }],
    ['12 500 EUR', { amount: 1_250_000, currency: 'EUR' }],
    ['CA$ 7', { amount: 700, currency: 'CAD' }],
    ['1.234.567', { amount: 123_456_700, currency: 'GBP' }],
    ['-£5.5', { amount: -550, currency: 'GBP' }],
    ['¥1', null],
    ['JPY 1200', { amount: 1_200, currency: 'JPY' }],
    ['KWD 1.5', { amount: 1_500, currency: 'KWD' }],
    ['about 500', null],
    ['5 to 6', null],
    ['', null],
    ['1,2,3', null],
    ['99999999999999999999', null],
  ])('%j is read as %j', (text, amount) => expect(readMoney(text, 'GBP')).toEqual(amount));

  test('written for people is read back as it was, in its own currency', () => {
    fc.assert(
      fc.property(money, (value) => {
        // Three decimals look like thousands to whoever does not know the currency; people see the grouping beside them.
        fc.pre(minorDigits(value.currency) !== 3);
        expect(readMoney(formatMoney(value), 'XTS')).toEqual(value.amount === 0 ? { ...value, amount: 0 } : value);
      }),
    );
  });

  test('is a whole number of minor units or nothing, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(..."0123456789.,' €£-GBPx") }), (text) => {
        const read = readMoney(text, 'GBP');
        expect(read === null || Number.isSafeInteger(read.amount)).toBe(true);
      }),
    );
  });
});

test.each([
  ['1.5', '1.5'],
  ['1,5', '1.5'],
  ['1,500', '1500'],
  ['1.500,25', '1500.25'],
  ["1'500", '1500'],
  ['15,00,000', null],
  ['1.', '1.0'],
  ['.5', null],
])('%s as a plain decimal is %s', (text, plain) => expect(plainDecimal(text)).toBe(plain));
