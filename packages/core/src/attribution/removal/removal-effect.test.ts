import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { chainOf, winning, type Chain, type JourneyPath } from './chain';
import { dataDriven, removalEffects } from './removal-effect';

const path = (steps: string, won: number, notWon: number): JourneyPath => ({ steps: [...steps], won, notWon });

/** The chance of winning by walking the chain step by step until nearly nobody is left. */
function walked({ states, start, next, startWon, won }: Chain, without: string | null): number {
  let here = start.map((share, at) => (states[at] === without ? 0 : share));
  let whole = startWon;
  for (let step = 0; step < 2_000; step += 1) {
    whole += here.reduce((sum, share, at) => sum + share * won[at]!, 0);
    here = states.map((state, to) =>
      state === without ? 0 : here.reduce((sum, share, from) => sum + share * next[from]![to]!, 0),
    );
  }
  return whole;
}

describe('the removal effect', () => {
  test('of a worked example', () => {
    // A, then B wins always; A alone and B alone each win half. From the start: half A, half B.
    const chain = chainOf([path('AB', 2, 0), path('A', 1, 1), path('B', 1, 1), path('B', 1, 1)]);
    // From A half go on to B, a quarter win and a quarter end; from B two thirds win.
    expect(winning(chain)).toBeCloseTo(0.5 * (0.25 + 0.5 * (4 / 6)) + 0.5 * (4 / 6), 12);
    expect(removalEffects(chain).get('A')).toBeCloseTo(1 - (0.5 * (4 / 6)) / winning(chain), 12);
    expect(removalEffects(chain).get('B')).toBeCloseTo(1 - (0.5 * 0.25) / winning(chain), 12);
  });

  test('is what walking the chain without a state gives, whatever the journeys', () => {
    const steps = fc.array(fc.constantFrom('a', 'b', 'c', 'd'), { minLength: 1, maxLength: 6 });
    const paths = fc.array(fc.record({ steps, won: fc.nat(5), notWon: fc.nat(5) }), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(paths, (all) => {
        const chain = chainOf(all);
        expect(winning(chain)).toBeCloseTo(walked(chain, null), 6);
        const effects = removalEffects(chain);
        for (const state of chain.states) {
          const whole = walked(chain, null);
          const expected = whole === 0 ? 0 : 1 - walked(chain, state) / whole;
          expect(effects.get(state)).toBeCloseTo(Math.max(0, expected), 5);
        }
      }),
      { numRuns: 50 },
    );
  });

  test('takes journeys without a step, and those from which nothing is won', () => {
    expect(winning(chainOf([path('', 1, 1)]))).toBe(0.5);
    expect([...removalEffects(chainOf([path('ab', 0, 3)])).values()]).toEqual([0, 0]);
    expect(removalEffects(chainOf([]))).toEqual(new Map());
  });
});

describe('what the data say', () => {
  /** The same numbers each time (mulberry32). */
  const numbers = () => {
    let state = 7;
    return () => {
      state = (state + 0x6d2b79f5) | 0;
      let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
      mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
      return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
    };
  };

  test('adds up to one, with a range around each share, and the same again', () => {
    const paths = [path('ab', 60, 40), path('a', 10, 90), path('b', 20, 80), path('cab', 15, 5), path('c', 2, 98)];
    const said = dataDriven(paths, 100, numbers());
    expect(said.tooThin).toBeNull();
    expect(said.shares.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    for (const { low, share, high } of said.shares) {
      expect(low).toBeLessThan(share);
      expect(high).toBeGreaterThan(share);
    }
    expect(dataDriven(paths, 100, numbers())).toEqual(said);
  });

  test.each<[string, JourneyPath[], RegExp]>([
    ['few were won', [path('ab', 3, 100)], /^Only 3 of these/],
    ['journeys are short', [path('a', 100, 100), path('ab', 5, 5)], /^Journeys are too short to tell: 95 %/],
    [
      'chance decides',
      [path('a', 15, 5_000), path('b', 16, 5_000), path('ab', 0, 2_000)],
      /^Other journeys by chance .* anything from \d+ to \d+ %/,
    ],
  ])('says plainly that %s', (_, paths, words) => {
    const { tooThin } = dataDriven(paths, 60, numbers());
    expect(tooThin).toMatch(words);
  });
});
