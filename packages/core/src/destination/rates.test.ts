import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkRate, converted, rateOn, totalIn, type ExchangeRate } from './rates';

const RATES: ExchangeRate[] = [
  { currency: 'EUR', from: '2026-01-01', rate: '0.85' },
  { currency: 'EUR', from: '2026-06-01', rate: '0.9' },
  { currency: 'JPY', from: '2026-01-01', rate: '0.005' },
  { currency: 'KWD', from: '2026-01-01', rate: '2.5' },
];
const gbp = (amount: number) => ({ amount, currency: 'GBP' });

describe('an amount in another currency', () => {
  test.each([
    ['by the rate of the day', { amount: 10_000, currency: 'EUR' }, '2026-05-31', gbp(8_500)],
    ['by the later rate from its first day on', { amount: 10_000, currency: 'EUR' }, '2026-06-01', gbp(9_000)],
    ['from a currency without minor units', { amount: 1_000, currency: 'JPY' }, '2026-02-01', gbp(500)],
    ['from one with three digits', { amount: 1_000, currency: 'KWD' }, '2026-02-01', gbp(250)],
    ['rounded half away from zero', { amount: -50, currency: 'EUR' }, '2026-06-02', gbp(-45)],
    ['its own stays', gbp(7), '2020-01-01', gbp(7)],
    ['before the first rate there is none', { amount: 1, currency: 'EUR' }, '2025-12-31', null],
    ['of an unknown currency there is none', { amount: 1, currency: 'CHF' }, '2026-05-31', null],
  ])('%s', (_, money, day, expected) => expect(converted(money, 'GBP', day, RATES)).toEqual(expected));

  test('is a whole number of minor units, whatever the rate', () => {
    fc.assert(
      fc.property(fc.integer(), fc.integer({ min: 1, max: 99_999 }), (amount, rate) => {
        const rates = [{ currency: 'EUR', from: '2026-01-01', rate: `0.${String(rate).padStart(5, '0')}` }];
        const money = converted({ amount, currency: 'EUR' }, 'GBP', '2026-01-01', rates)!;
        expect(Number.isInteger(money.amount)).toBe(true);
      }),
    );
  });
});

test('a total says which currencies it leaves out', () => {
  expect(
    totalIn([gbp(100), { amount: 200, currency: 'EUR' }, { amount: 5, currency: 'CHF' }], 'GBP', '2026-03-01', RATES),
  ).toEqual({
    total: gbp(270),
    without: ['CHF'],
  });
});

test('the order of rates plays no part', () => {
  expect(rateOn([...RATES].reverse(), 'EUR', '2026-07-01')?.rate).toBe('0.9');
});

test.each([
  [{ currency: 'Euro', from: '2026-01-01', rate: '1' }, '/currency'],
  [{ currency: 'GBP', from: '2026-01-01', rate: '1' }, '/currency'],
  [{ currency: 'EUR', from: 'soon', rate: '1' }, '/from'],
  [{ currency: 'EUR', from: '2026-01-01', rate: '0' }, '/rate'],
  [{ currency: 'EUR', from: '2026-01-01', rate: '1e9' }, '/rate'],
])('%j is no rate, and it says where', (rate, at) => {
  expect(checkRate(rate, 'GBP')).toMatchObject([{ at }]);
});
