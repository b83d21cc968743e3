import { TIME_TYPES, type ConditionTest } from '../condition-test';
import { wantedDate } from '../wanted';

export const fromDate: ConditionTest = {
  name: 'from',
  label: 'is on or after',
  fits: TIME_TYPES,
  wanted: 'date',
  example: { type: 'date', wanted: '2026-03-14', meets: '2026-03-14', fails: '2026-03-13' },
  compare(wanted) {
    const read = wantedDate(wanted);
    return typeof read === 'string' ? read : { comparison: { of: 'time', from: read.date }, not: false };
  },
};
