import type { ConditionTest } from '../condition-test';

export const no: ConditionTest = {
  name: 'no',
  label: 'is no',
  fits: ['yes-no'],
  wanted: 'none',
  example: { type: 'yes-no', meets: false, fails: null },
  compare: () => ({ comparison: { of: 'yes-no', wanted: false }, not: false }),
};
