import { NUMBER_TYPES, type ConditionTest } from '../condition-test';
import { wantedNumber } from '../wanted';

export const atMost: ConditionTest = {
  name: 'at-most',
  label: 'is at most',
  fits: NUMBER_TYPES,
  wanted: 'number',
  example: { type: 'whole-number', wanted: 6, meets: -2, fails: 7 },
  compare(wanted, setting) {
    const read = wantedNumber(wanted, setting);
    if (typeof read === 'string') return read;
    const { number, ...currency } = read;
    return { comparison: { of: 'number', most: number, ...currency }, not: false };
  },
};
