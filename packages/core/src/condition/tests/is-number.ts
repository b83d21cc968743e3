import { NUMBER_TYPES, type ConditionTest } from '../condition-test';
import { wantedNumber } from '../wanted';

export const isNumber: ConditionTest = {
  name: 'is-number',
  label: '=',
  fits: NUMBER_TYPES,
  wanted: 'number',
  example: { type: 'decimal', wanted: 6, meets: 6, fails: 6.5 },
  compare(wanted, setting) {
    const read = wantedNumber(wanted, setting);
    if (typeof read === 'string') return read;
    const { number, ...currency } = read;
    return { comparison: { of: 'number', least: number, most: number, ...currency }, not: false };
  },
};
