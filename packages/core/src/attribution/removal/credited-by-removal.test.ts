import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { creditedByRemoval } from './credited-by-removal';

interface Row {
  path: string[];
  value: number;
  won: number;
}
const row = (path: string, won: number, value = won): Row => ({ path: path.split('/'), value, won });
const pathOf = ({ path }: Row) => path;
const share = (state: string, part: number) => ({ state, share: part, low: part, high: part });

test('channels get what their removal would cost, and share it inside as before; the unknown stays as it is', () => {
  const rows = [
    row('', 50),
    row('paid', 60),
    row('search', 40),
    row('paid/a', 45),
    row('paid/b', 15),
    row('search/c', 40),
  ];
  const shares = [share('paid', 0.25), share('search', 0.75)];
  expect(creditedByRemoval(rows, pathOf, shares).map(({ path, won }) => [path.join('/'), won])).toEqual([
    ['', 50],
    ['paid', 25],
    ['search', 75],
    ['paid/a', 19],
    ['paid/b', 6],
    ['search/c', 75],
  ]);
});

test('whatever the shares, the total stays, and the parts of each row add up to it', () =>
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(3), fc.nat(3), fc.nat(1_000_000)), { minLength: 1, maxLength: 30 }),
      fc.array(fc.nat(100), { minLength: 4, maxLength: 4 }),
      (leaves, weights) => {
        const sums = new Map<string, number>();
        const add = (path: string, won: number) => sums.set(path, (sums.get(path) ?? 0) + won);
        for (const [channel, source, won] of leaves) {
          add(`c${channel}`, won);
          add(`c${channel}/s${source}`, won);
        }
        const rows = [...sums].map(([path, won]) => row(path, won));
        const all = weights.reduce((sum, weight) => sum + weight, 0);
        const shares = weights.map((weight, n) => share(`c${n}`, all ? weight / all : 0.25));
        const credited = creditedByRemoval(rows, pathOf, shares);
        const won = (some: readonly Row[]) => some.reduce((sum, one) => sum + one.won, 0);
        const channels = (some: readonly Row[]) => some.filter(({ path }) => path.length === 1);
        expect(won(channels(credited))).toBe(won(channels(rows)));
        for (const channel of channels(credited))
          expect(won(credited.filter(({ path }) => path.length === 2 && path[0] === channel.path[0]))).toBe(
            channel.won,
          );
      },
    ),
  ));
