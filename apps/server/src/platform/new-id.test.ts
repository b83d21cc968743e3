import { expect, test } from '@jest/globals';
import { validate, version } from 'uuid';
import { newId } from './new-id';

test('new ids are UUIDs of version 7 that carry the time, differ, and grow', () => {
  const before = Date.now();
  const ids = Array.from({ length: 5_000 }, newId);
  expect(ids.every((id) => validate(id) && version(id) === 7)).toBe(true);
  expect(new Set(ids).size).toBe(ids.length);
  expect([...ids].sort()).toEqual(ids);
  const time = (id: string) => parseInt(id.replace('-', '').slice(0, 12), 16);
  expect(time(ids[0]!)).toBeGreaterThanOrEqual(before);
  expect(time(ids.at(-1)!)).toBeLessThanOrEqual(Date.now());
});
