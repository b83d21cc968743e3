import { expect, test } from '@jest/globals';
import { Budget, Turns } from './budget';

test('a budget gives what is free, takes it back once, and refuses the rest', () => {
  const budget = new Budget(10);
  const giveBack = budget.take(7)!;
  expect(budget.take(4)).toBeNull();
  expect(budget.take(3)).not.toBeNull();
  giveBack();
  giveBack();
  expect(budget.taken).toBe(3);
});

test('so many go on at once, and the others in their order', async () => {
  const turns = new Turns(2);
  const begun: number[] = [];
  const ends: (() => void)[] = [];
  const all = [0, 1, 2, 3].map((n) =>
    turns.with(async () => {
      begun.push(n);
      await new Promise<void>((resolve) => ends.push(resolve));
    }),
  );
  await Promise.resolve();
  expect(begun).toEqual([0, 1]);
  ends[0]!();
  await all[0];
  expect(begun).toEqual([0, 1, 2]);
  ends[1]!();
  ends[2]!();
  await all[2];
  ends[3]!();
  await Promise.all(all);
  expect(begun).toEqual([0, 1, 2, 3]);
});
