import { expect, test } from '@jest/globals';
import { nextMonday } from './next-monday';

test.each([
  ['2026-12-01T08:00:00Z', '2026-12-07T06:00:00.000Z'],
  ['2026-12-06T23:59:59Z', '2026-12-07T06:00:00.000Z'],
  ['2026-12-07T05:59:59Z', '2026-12-07T06:00:00.000Z'],
  ['2026-12-07T06:00:00Z', '2026-12-14T06:00:00.000Z'],
  ['2026-12-31T12:00:00Z', '2027-01-04T06:00:00.000Z'],
])('after %s the next Monday morning is %s', (now, monday) =>
  expect(nextMonday(new Date(now)).toISOString()).toBe(monday),
);
