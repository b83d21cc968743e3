import { TIME_TYPES, type ConditionTest } from '../condition-test';
import { dayAfter, wantedDays } from '../wanted';

/** Whole days in UTC, today among them. */
export const lastDays: ConditionTest = {
  name: 'last-days',
  label: 'is in the last days',
  fits: TIME_TYPES,
  wanted: 'days',
  example: { type: 'date-time', wanted: 7, meets: '2026-03-08T00:00:00.000Z', fails: '2026-03-07T23:59:00.000Z' },
  compare(wanted, { now }) {
    const days = wantedDays(wanted);
    if (typeof days === 'string') return days;
    const today = now.slice(0, 10);
    return { comparison: { of: 'time', from: dayAfter(today, 1 - days), before: dayAfter(today, 1) }, not: false };
  },
};
