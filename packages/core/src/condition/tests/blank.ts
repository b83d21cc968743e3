import { FIELD_TYPES } from '../../field/field-definition';
import type { ConditionTest } from '../condition-test';

export const blank: ConditionTest = {
  name: 'blank',
  label: 'is blank',
  fits: FIELD_TYPES,
  wanted: 'none',
  example: { type: 'text', meets: null, fails: 'x' },
  compare: () => ({ comparison: { of: 'blank' }, not: false }),
};
