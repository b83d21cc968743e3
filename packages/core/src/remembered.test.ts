import { expect, jest, test } from '@jest/globals';
import { remembered } from './remembered';

test('what was worked out is not worked out again, until too much is remembered', () => {
  const work = jest.fn((text: string) => text.length);
  const length = remembered(work, 2);
  expect([length('ada'), length('ada'), length('bo')]).toEqual([3, 3, 2]);
  expect(work).toHaveBeenCalledTimes(2);
  length('cleo');
  length('ada');
  expect(work).toHaveBeenCalledTimes(4);
});

test('an answer of null is remembered, and a long text is not', () => {
  const work = jest.fn((_: string): string | null => null);
  const nothing = remembered(work);
  for (const text of ['a', 'a', 'b'.repeat(300), 'b'.repeat(300)]) expect(nothing(text)).toBeNull();
  expect(work).toHaveBeenCalledTimes(3);
});
