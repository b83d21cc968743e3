import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compareVersions } from './version-comparison';

/** Numbers from 0 to 1 that are the same in every run (mulberry32). */
function chance(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** Shows two versions to visitors by chance, looks after every 50 of them, and answers what was ever said. */
function watched(seed: number, visitors: number, shareOfOne: number, rates: { one: number; other: number }) {
  const next = chance(seed);
  const seen = { one: { views: 0, sends: 0 }, other: { views: 0, sends: 0 } };
  const said = new Set<string>();
  let missed = false;
  for (let n = 1; n <= visitors; n += 1) {
    const which = next() < shareOfOne ? 'one' : 'other';
    seen[which].views += 1;
    if (next() < rates[which]) seen[which].sends += 1;
    const found = n % 50 === 0 ? compareVersions(seen.one, seen.other) : null;
    if (!found) continue;
    if (found.better) said.add(found.better);
    const truth = rates.one - rates.other;
    missed ||= found.low > truth || found.high < truth;
  }
  return { said, missed };
}

const RUNS = 150;
const seeds = Array.from({ length: RUNS }, (_, seed) => seed + 1);

describe('two versions of a form', () => {
  test('that are the same are hardly ever told apart, however often one looks', () => {
    const wrong = seeds.filter((seed) => watched(seed, 3_000, 0.5, { one: 0.2, other: 0.2 }).said.size).length;
    expect(wrong / RUNS).toBeLessThan(0.05);
  });

  test('shared unevenly: the interval holds the true difference at every look', () => {
    const missed = seeds.filter((seed) => watched(seed, 3_000, 0.1, { one: 0.3, other: 0.22 }).missed).length;
    expect(missed / RUNS).toBeLessThan(0.05);
  });

  test('that differ much are told apart, the right way round', () => {
    const said = seeds.map((seed) => [...watched(seed, 3_000, 0.5, { one: 0.3, other: 0.2 }).said]);
    expect(said.every((words) => !words.includes('other'))).toBe(true);
    expect(said.filter((words) => words.includes('one')).length / RUNS).toBeGreaterThan(0.9);
  });

  test.each([
    [
      { views: 49, sends: 20 },
      { views: 5_000, sends: 10 },
    ],
    [
      { views: 5_000, sends: 10 },
      { views: 0, sends: 0 },
    ],
  ])('are not compared while one was hardly seen: %j, %j', (one, other) =>
    expect(compareVersions(one, other)).toBeNull(),
  );

  test('where nobody sent either are not certain of anything', () => {
    const found = compareVersions({ views: 60, sends: 0 }, { views: 60, sends: 0 })!;
    expect(found).toMatchObject({ difference: 0, better: null });
    expect(found.high).toBeGreaterThan(0.05);
  });

  const seen = fc
    .tuple(fc.integer({ min: 50, max: 100_000 }), fc.integer({ min: 0, max: 120_000 }))
    .map(([views, sends]) => ({ views, sends }));
  test('compare the same from either side', () => {
    fc.assert(
      fc.property(seen, seen, (one, other) => {
        const [there, back] = [compareVersions(one, other)!, compareVersions(other, one)!];
        expect(there.difference).toBeCloseTo(-back.difference, 12);
        expect(there.low).toBeCloseTo(-back.high, 12);
        expect(there.low).toBeLessThanOrEqual(there.difference);
        expect(there.high).toBeGreaterThanOrEqual(there.difference);
        expect([there.low, there.high].every((value) => value >= -1 && value <= 1)).toBe(true);
      }),
    );
  });

  test('seen by more are known more closely', () => {
    fc.assert(
      fc.property(fc.integer({ min: 50, max: 5_000 }), fc.double({ min: 0, max: 1, noNaN: true }), (views, rate) => {
        const at = (n: number) => compareVersions({ views: n, sends: rate * n }, { views: n, sends: rate * n })!;
        expect(at(views * 4).high).toBeLessThanOrEqual(at(views).high + 1e-9);
      }),
    );
  });
});
