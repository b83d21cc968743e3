import { NUMBER_TYPES, type ConditionTest } from '../condition-test';
import { wantedNumber } from '../wanted';

export const above: ConditionTest = {
  name: 'above',
  label: 'is more than',
  fits: NUMBER_TYPES,
  wanted: 'number',
  example: { type: 'decimal', wanted: 6, meets: 7, fails: 6 },
  compare(wanted, setting) {
    const read = wantedNumber(wanted, setting);
    if (typeof read === 'string') return read;
    const { number, ...currency } = read;
    return { comparison: { of: 'number', over: number, ...currency }, not: false };
  },
};
