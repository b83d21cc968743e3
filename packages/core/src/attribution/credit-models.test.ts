import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apportion } from './apportion';
import { CREDIT_MODELS, creditModel } from './models/registry';

const DAY = 86_400_000;
const shares = (key: string, days: number[], halfLife = 7) =>
  creditModel(key)!.shares(
    days.map((day) => day * DAY),
    { halfLife },
  );

describe('a model', () => {
  // Worked by hand: four touches on days 0, 10, 20 and 30.
  test.each([
    ['first', [1, 0, 0, 0]],
    ['last', [0, 0, 0, 1]],
    ['equal', [0.25, 0.25, 0.25, 0.25]],
    ['position', [0.4, 0.1, 0.1, 0.4]],
    // Half-life ten days: 1/8, 1/4, 1/2 and 1 of 15/8.
    ['decay', [1 / 15, 2 / 15, 4 / 15, 8 / 15]],
  ])('%s shares out a journey of four touches as %j', (key, expected) =>
    shares(key, [0, 10, 20, 30], 10).forEach((share, nth) => expect(share).toBeCloseTo(expected[nth]!, 12)),
  );

  test('of positions halves what two touches led to', () => expect(shares('position', [0, 1])).toEqual([0.5, 0.5]));

  test('gives shares that are not negative and add up to one, whatever the journey', () =>
    fc.assert(
      fc.property(
        fc.constantFrom(...CREDIT_MODELS),
        fc.array(fc.integer({ min: 0, max: 3_650 * DAY }), { minLength: 1, maxLength: 40 }),
        fc.integer({ min: 1, max: 365 }),
        (model, times, halfLife) => {
          const got = model.shares(
            times.sort((one, other) => one - other),
            { halfLife },
          );
          expect(got).toHaveLength(times.length);
          expect(Math.min(...got)).toBeGreaterThanOrEqual(0);
          expect(got.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 9);
        },
      ),
    ));

  test('tells what it does', () =>
    expect(CREDIT_MODELS.map((model) => model.describe({ halfLife: 7 })).filter((text) => !text.endsWith('.'))).toEqual(
      [],
    ));
});

describe('apportioning', () => {
  test('gives what is left to the largest remainders', () => {
    expect(apportion(100, [1, 1, 1])).toEqual([34, 33, 33]);
    expect(apportion(10, [0.6, 0.25, 0.15])).toEqual([6, 3, 1]);
    expect(apportion(-7, [1, 1])).toEqual([-4, -3]);
    expect(apportion(5, [0, 0])).toEqual([5, 0]);
    expect(apportion(5, [])).toEqual([]);
  });

  test('adds up to the whole, and no part is off by more than one', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: -1e13, max: 1e13 }),
        fc.array(fc.double({ min: 0, max: 1e6, noNaN: true }), { minLength: 1, maxLength: 60 }),
        (total, weights) => {
          const parts = apportion(total, weights);
          const whole = weights.reduce((sum, weight) => sum + weight, 0);
          expect(parts.reduce((sum, part) => sum + part, 0)).toBe(total);
          if (whole > 0)
            parts.forEach((part, index) =>
              expect(Math.abs(part - (total * weights[index]!) / whole)).toBeLessThanOrEqual(
                1 + Math.abs(total) * 1e-12,
              ),
            );
        },
      ),
    ));
});
