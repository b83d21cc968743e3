import type { ConditionTest } from '../condition-test';
import { wantedOptions } from '../wanted';

export const holdsAllOf: ConditionTest = {
  name: 'holds-all-of',
  label: 'holds all of',
  fits: ['several-of'],
  wanted: 'options',
  example: { type: 'several-of', wanted: ['a', 'b'], meets: ['b', 'c', 'a'], fails: ['a', 'c'] },
  compare(wanted) {
    const options = wantedOptions(wanted);
    return typeof options === 'string'
      ? options
      : { comparison: { of: 'options', how: 'all', wanted: options }, not: false };
  },
};
