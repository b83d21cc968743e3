import { NUMBER_TYPES, type ConditionTest } from '../condition-test';
import { wantedNumber } from '../wanted';

export const atLeast: ConditionTest = {
  name: 'at-least',
  label: 'is at least',
  fits: NUMBER_TYPES,
  wanted: 'number',
  example: {
    type: 'money',
    wanted: 'EUR 12',
    meets: { amount: 1_200, currency: 'EUR' },
    fails: { amount: 1_300, currency: 'GBP' },
  },
  compare(wanted, setting) {
    const read = wantedNumber(wanted, setting);
    if (typeof read === 'string') return read;
    const { number, ...currency } = read;
    return { comparison: { of: 'number', least: number, ...currency }, not: false };
  },
};
