import { OPTION_TYPES, type ConditionTest } from '../condition-test';
import { wantedOptions } from '../wanted';

export const isAnyOf: ConditionTest = {
  name: 'is-any-of',
  label: 'is any of',
  fits: OPTION_TYPES,
  wanted: 'options',
  example: { type: 'one-of', wanted: ['warm', 'cold'], meets: 'cold', fails: 'hot' },
  compare(wanted) {
    const options = wantedOptions(wanted);
    return typeof options === 'string'
      ? options
      : { comparison: { of: 'options', how: 'any', wanted: options }, not: false };
  },
};
