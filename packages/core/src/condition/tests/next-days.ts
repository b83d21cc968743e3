import { TIME_TYPES, type ConditionTest } from '../condition-test';
import { dayAfter, wantedDays } from '../wanted';

/** Whole days in UTC, today among them. */
export const nextDays: ConditionTest = {
  name: 'next-days',
  label: 'is in the next days',
  fits: TIME_TYPES,
  wanted: 'days',
  example: { type: 'date', wanted: 7, meets: '2026-03-20', fails: '2026-03-21' },
  compare(wanted, { now }) {
    const days = wantedDays(wanted);
    if (typeof days === 'string') return days;
    const today = now.slice(0, 10);
    return { comparison: { of: 'time', from: today, before: dayAfter(today, days) }, not: false };
  },
};
