import type { ConditionTest } from '../condition-test';

export const yes: ConditionTest = {
  name: 'yes',
  label: 'is yes',
  fits: ['yes-no'],
  wanted: 'none',
  example: { type: 'yes-no', meets: true, fails: false },
  compare: () => ({ comparison: { of: 'yes-no', wanted: true }, not: false }),
};
