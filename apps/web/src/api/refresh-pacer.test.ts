import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { RefreshPacer, type Refreshed } from './refresh-pacer';

let begun: { at: number; topics: string[] }[] = [];

beforeEach(() => {
  jest.useFakeTimers({ now: 0 });
  begun = [];
});
afterEach(() => {
  jest.useRealTimers();
});

/** A refresh that takes so many requests and milliseconds. */
function pacer(requests: number, milliseconds: number, missed: string[][] = []): RefreshPacer<string> {
  return new RefreshPacer<string>((topics) => {
    begun.push({ at: Date.now(), topics: [...topics] });
    return new Promise<Refreshed<string>>((resolve) =>
      setTimeout(() => resolve({ requests, missed: missed.shift() ?? [] }), milliseconds),
    );
  });
}

async function arriving(pace: RefreshPacer<string>, perSecond: number, seconds: number): Promise<void> {
  for (let n = 0; n < perSecond * seconds; n += 1) {
    pace.changed(['submissions']);
    await jest.advanceTimersByTimeAsync(1_000 / perSecond);
  }
}

describe('a refresh', () => {
  test('comes soon after it was quiet, once for a burst', async () => {
    const pace = pacer(4, 20);
    pace.changed(['records']);
    pace.changed(['runs', 'records']);
    await jest.advanceTimersByTimeAsync(100);
    expect(begun).toEqual([{ at: 100, topics: ['records', 'runs'] }]);
    await jest.advanceTimersByTimeAsync(60_000);
    expect(begun).toHaveLength(1);
  });

  test.each([1, 4])(
    'of %i requests makes two requests a second at most at twenty arrivals a second',
    async (requests) => {
      await arriving(pacer(requests, 40), 20, 60);
      const made = begun.length * requests;
      expect(made).toBeLessThanOrEqual(2 * 60 + requests);
      expect(made).toBeGreaterThan(100);
    },
  );

  test('shows what is two seconds old at most, with four requests', async () => {
    await arriving(pacer(4, 40), 20, 30);
    const gaps = begun.slice(1).map(({ at }, n) => at - begun[n]!.at);
    expect(Math.max(...gaps)).toBeLessThanOrEqual(2_000);
  });

  test('is never begun while one is under way, and leaves a slow server half of its time', async () => {
    await arriving(pacer(1, 3_000), 20, 60);
    const gaps = begun.slice(1).map(({ at }, n) => at - begun[n]!.at);
    expect(Math.min(...gaps)).toBeGreaterThanOrEqual(6_000);
  });

  test('follows for what changed during one, and for what one came too early for', async () => {
    const pace = pacer(1, 200, [['late']]);
    pace.changed(['first']);
    await jest.advanceTimersByTimeAsync(150);
    pace.changed(['during']);
    await jest.advanceTimersByTimeAsync(5_000);
    expect(begun.map(({ topics }) => topics)).toEqual([['first'], ['during', 'late']]);
  });

  test('is not kept waiting after an act of one’s own', async () => {
    const pace = pacer(10, 20);
    pace.changed(['records']);
    await jest.advanceTimersByTimeAsync(200);
    pace.changed(['records']);
    pace.hurry();
    await jest.advanceTimersByTimeAsync(150);
    expect(begun.map(({ at }) => at)).toEqual([100, 300]);
  });

  test('comes no more once it is stopped', async () => {
    const pace = pacer(1, 10);
    pace.changed(['records']);
    pace.stop();
    await jest.advanceTimersByTimeAsync(1_000);
    expect(begun).toEqual([]);
  });
});
