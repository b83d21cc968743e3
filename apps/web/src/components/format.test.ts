import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { age, ago, count, percent, recordNumber, seconds, shortDay, shortMoney, shortTime, timeSpan } from './format';

beforeEach(() => {
  jest.useFakeTimers({ now: new Date(2027, 3, 7, 12, 0) });
});
afterEach(() => {
  jest.useRealTimers();
});

const at = (...parts: [number, number, number, number?, number?]) => new Date(...parts).toISOString();

describe('a time', () => {
  test.each([
    [at(2027, 3, 7, 10, 41), '10:41'],
    [at(2027, 3, 5, 10, 41), 'Mon 10:41'],
    [at(2027, 2, 3, 10, 41), '3 Mar'],
    [at(2026, 10, 3), '3 Nov 2026'],
  ])('%s is %s', (time, short) => expect(shortTime(time)).toBe(short));

  test('is as long ago as it takes one word to say', () => {
    expect(ago(at(2027, 3, 7, 11, 46))).toBe('14 minutes ago');
    expect([at(2027, 3, 7, 11, 46), at(2027, 3, 7, 7), at(2027, 2, 26, 12)].map(age)).toEqual([
      '14 min',
      '5 h',
      '12 d',
    ]);
    expect(age(at(2027, 3, 7, 12, 1))).toBe('0 min');
  });

  test('is a day where the hour does not matter', () => expect(shortDay('2027-09-28T12:00')).toBe('28 Sept'));
});

describe('a number', () => {
  test.each([
    [count(1_234_567), '1,234,567'],
    [percent(0.125), '13 %'],
    [seconds(0.456), '0.46 s'],
    [seconds(42.4), '42 s'],
    [seconds(600), '10 min'],
    [recordNumber('contact', 94), 'C-0094'],
    [recordNumber('company', 12_345), 'F-12345'],
    [shortMoney({ amount: 4_750_000, currency: 'GBP' }), '£ 48k'],
    [shortMoney({ amount: 250_000_000, currency: 'EUR' }), '€ 2.50m'],
    [shortMoney({ amount: 95_000, currency: 'CAD' }), 'C$ 950'],
    [shortMoney({ amount: 950, currency: 'JPY' }), 'JPY 950'],
  ])('%s is written as %s', (text, wanted) => expect(text).toBe(wanted));
});

test.each([
  [0, '0 min'],
  [5_340, '89 min'],
  [5_400, '2 h'],
  [172_799, '48 h'],
  [172_800, '2 d'],
])('%i seconds are %s', (value, words) => expect(timeSpan(value)).toBe(words));
