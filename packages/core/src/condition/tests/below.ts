import { NUMBER_TYPES, type ConditionTest } from '../condition-test';
import { wantedNumber } from '../wanted';

export const below: ConditionTest = {
  name: 'below',
  label: 'is less than',
  fits: NUMBER_TYPES,
  wanted: 'number',
  example: { type: 'decimal', wanted: 6, meets: 5.5, fails: 6 },
  compare(wanted, setting) {
    const read = wantedNumber(wanted, setting);
    if (typeof read === 'string') return read;
    const { number, ...currency } = read;
    return { comparison: { of: 'number', under: number, ...currency }, not: false };
  },
};
