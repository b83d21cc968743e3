import { FIELD_TYPES } from '../../field/field-definition';
import type { ConditionTest } from '../condition-test';

export const filled: ConditionTest = {
  name: 'filled',
  label: 'is filled in',
  fits: FIELD_TYPES,
  wanted: 'none',
  example: { type: 'several-of', meets: ['a'], fails: [] },
  compare: () => ({ comparison: { of: 'blank' }, not: true }),
};
