import { TIME_TYPES, type ConditionTest } from '../condition-test';
import { wantedDate } from '../wanted';

export const beforeDate: ConditionTest = {
  name: 'before',
  label: 'is before',
  fits: TIME_TYPES,
  wanted: 'date',
  example: { type: 'date', wanted: '2026-03-14', meets: '2026-03-13', fails: '2026-03-14' },
  compare(wanted) {
    const read = wantedDate(wanted);
    return typeof read === 'string' ? read : { comparison: { of: 'time', before: read.date }, not: false };
  },
};
