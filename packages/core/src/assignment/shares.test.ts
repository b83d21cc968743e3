import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { turnByShares, type Shares } from './shares';

const round = (shares: Shares, turns: number) =>
  Array.from({ length: turns }, (_, turn) => turnByShares(Object.keys(shares), shares, turn));

describe('turns by shares', () => {
  test('are spread over a round', () => {
    expect(round({ a: 3, b: 1, c: 1 }, 5)).toEqual(['a', 'b', 'a', 'c', 'a']);
    expect(round({ a: 1, b: 1, c: 1 }, 6)).toEqual(['a', 'b', 'c', 'a', 'b', 'c']);
    expect(round({ a: 0, b: 2 }, 3)).toEqual(['b', 'b', 'b']);
    expect(turnByShares(['a', 'b'], { a: 0, b: 0 }, 3)).toBeNull();
    expect(turnByShares([], {}, 0)).toBeNull();
    expect(turnByShares(['a', 'b'], {}, 1)).toBe('b');
  });

  test('give each exactly their share of every round, and never drift by more than one from it meanwhile', () => {
    const shares = fc.dictionary(fc.constantFrom('a', 'b', 'c', 'd', 'e'), fc.integer({ min: 0, max: 12 }), {
      minKeys: 1,
    });
    fc.assert(
      fc.property(shares, fc.integer({ min: 0, max: 3 }), (of, rounds) => {
        const total = Object.values(of).reduce((sum, share) => sum + share, 0);
        fc.pre(total > 0);
        const got = new Map<string, number>();
        for (let turn = 0; turn < total * (rounds + 1); turn += 1) {
          const key = turnByShares(Object.keys(of), of, turn)!;
          got.set(key, (got.get(key) ?? 0) + 1);
          for (const [one, share] of Object.entries(of))
            expect(Math.abs((got.get(one) ?? 0) - (share / total) * (turn + 1))).toBeLessThanOrEqual(2);
        }
        for (const [key, share] of Object.entries(of)) expect(got.get(key) ?? 0).toBe(share * (rounds + 1));
      }),
    );
  });
});
