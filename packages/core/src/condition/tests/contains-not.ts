import { TEXT_TYPES, type ConditionTest } from '../condition-test';
import { wantedTexts } from '../wanted';

export const containsNot: ConditionTest = {
  name: 'contains-not',
  label: 'does not contain',
  fits: TEXT_TYPES,
  wanted: 'texts',
  example: { type: 'text', wanted: 'ick', meets: 'Onion', fails: 'Pickle' },
  compare(wanted, { caseSensitive }) {
    const texts = wantedTexts(wanted);
    return typeof texts === 'string'
      ? texts
      : { comparison: { of: 'text', how: 'contains', wanted: texts, caseSensitive }, not: true };
  },
};
