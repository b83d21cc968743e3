import { expect, test } from '@jest/globals';
import { FloodGuard } from './flood-guard';

test('lets through as many a minute as allowed, for each subject by itself', () => {
  const guard = new FloodGuard();
  const start = 1_000_000_000;
  expect([1, 2, 3].map(() => guard.wait('one', 2, start + 1_000) > 0)).toEqual([false, false, true]);
  expect(guard.wait('other', 2, start + 1_000)).toBe(0);
  expect(guard.wait('one', 2, start + 31_000)).toBeLessThanOrEqual(30);
  expect(guard.wait('one', 2, start + 61_000)).toBe(0);
});

test('forgets rather than grows without end', () => {
  const guard = new FloodGuard();
  for (let n = 0; n < 60_000; n += 1) guard.wait(`subject ${n}`, 1, 5);
  expect(guard.wait('subject 0', 1, 5)).toBe(0);
});
