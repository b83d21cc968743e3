import { TIME_TYPES, type ConditionTest } from '../condition-test';
import { dayAfter, wantedDate } from '../wanted';

export const onDate: ConditionTest = {
  name: 'on',
  label: 'is on',
  fits: TIME_TYPES,
  wanted: 'date',
  example: {
    type: 'date-time',
    wanted: '2026-03-14',
    meets: '2026-03-14T23:59:00.000Z',
    fails: '2026-03-15T00:00:00.000Z',
  },
  compare(wanted) {
    const read = wantedDate(wanted);
    return typeof read === 'string'
      ? read
      : { comparison: { of: 'time', from: read.date, before: dayAfter(read.date, 1) }, not: false };
  },
};
