import { expect, test } from '@jest/globals';
import type { BalanceLine } from '@haycart/api';
import { balanceWords, signOf } from './balance-sign';

const line = (acknowledged: number, kept: number, off: string[] = []) =>
  ({ acknowledged, kept, off }) as unknown as BalanceLine;

test.each([
  [line(3, 3), 'even', 'yes'],
  [line(3, 5), 'more', '2 more than acknowledged'],
  [line(3, 2), 'off', '1 not kept'],
  [line(3, 1, ['a', 'b']), 'off', '2 not kept, 2 submissions that no run tells of'],
])('%j is %s', (one, kind, words) => expect(signOf(one)).toEqual({ kind, words }));

test('is told in a sentence', () => {
  expect(balanceWords({ lines: [line(3, 3), line(2, 4)], off: 0 })).toBe('all 7 are accounted for');
  expect(balanceWords({ lines: [line(3, 2)], off: 1 })).toBe('1 submission of 3 cannot be accounted for');
  expect(balanceWords({ lines: [], off: 0 })).toBe('nothing arrived');
});
