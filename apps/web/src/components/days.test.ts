import { expect, test } from '@jest/globals';
import { latestMondays, periodOf } from './days';

const local = (text: string) => new Date(text).toISOString();

test.each<[{ from: string; to: string }, { since?: string; before?: string }]>([
  [{ from: '', to: '' }, {}],
  [{ from: '2027-04-06', to: '' }, { since: local('2027-04-06T00:00') }],
  [{ from: '', to: '2027-04-06' }, { before: local('2027-04-07T00:00') }],
  [
    { from: '2027-04-06', to: '2027-04-06' },
    { since: local('2027-04-06T00:00'), before: local('2027-04-07T00:00') },
  ],
  [
    { from: '2027-12-31', to: '2027-12-31' },
    { since: local('2027-12-31T00:00'), before: local('2028-01-01T00:00') },
  ],
])('days %j are whole days where one is', (days, period) => {
  expect(periodOf(days)).toEqual(period);
});

test('a day on which the clocks change is whole too', () => {
  for (const day of ['2027-03-28', '2027-10-31']) {
    const { since, before } = periodOf({ from: day, to: day });
    const hours = (Date.parse(before!) - Date.parse(since!)) / 3_600_000;
    expect([23, 24, 25]).toContain(hours);
    expect(new Date(before!).getHours()).toBe(0);
  }
});

test.each([
  ['2027-04-05T00:00:00Z', ['2027-03-22', '2027-03-29', '2027-04-05']],
  ['2027-04-11T23:59:59Z', ['2027-03-22', '2027-03-29', '2027-04-05']],
  ['2027-01-01T12:00:00Z', ['2026-12-14', '2026-12-21', '2026-12-28']],
  ['2028-03-01T12:00:00Z', ['2028-02-14', '2028-02-21', '2028-02-28']],
])('the latest weeks at %s begin on %j', (now, mondays) => {
  expect(latestMondays(new Date(now), 3)).toEqual(mondays);
});
