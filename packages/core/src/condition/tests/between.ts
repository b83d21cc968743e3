import { NUMBER_TYPES, type ConditionTest } from '../condition-test';
import { wantedNumber } from '../wanted';

export const between: ConditionTest = {
  name: 'between',
  label: 'is between',
  fits: NUMBER_TYPES,
  wanted: 'numbers',
  example: { type: 'whole-number', wanted: [4, 9], meets: 9, fails: 10 },
  compare(wanted, setting) {
    const [first, last] = (Array.isArray(wanted) ? wanted : []).map((one) => wantedNumber(one, setting));
    if (first === undefined || last === undefined || typeof first === 'string' || typeof last === 'string')
      return 'Type two numbers.';
    if (first.currency !== last.currency) return 'Type two amounts of one currency.';
    const { number: least, ...currency } = first;
    return { comparison: { of: 'number', least, most: last.number, ...currency }, not: false };
  },
};
