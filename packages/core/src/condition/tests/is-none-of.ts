import { OPTION_TYPES, type ConditionTest } from '../condition-test';
import { wantedOptions } from '../wanted';

export const isNoneOf: ConditionTest = {
  name: 'is-none-of',
  label: 'is none of',
  fits: OPTION_TYPES,
  wanted: 'options',
  example: { type: 'one-of', wanted: ['warm'], meets: 'cold', fails: 'warm' },
  compare(wanted) {
    const options = wantedOptions(wanted);
    return typeof options === 'string'
      ? options
      : { comparison: { of: 'options', how: 'any', wanted: options }, not: true };
  },
};
