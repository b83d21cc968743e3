import { TEXT_TYPES, type ConditionTest } from '../condition-test';
import { wantedTexts } from '../wanted';

export const isNot: ConditionTest = {
  name: 'is-not',
  label: 'is not',
  fits: TEXT_TYPES,
  wanted: 'texts',
  example: { type: 'text', wanted: 'Pickle', meets: 'Pickles', fails: 'PICKLE' },
  compare(wanted, { caseSensitive }) {
    const texts = wantedTexts(wanted);
    return typeof texts === 'string'
      ? texts
      : { comparison: { of: 'text', how: 'equals', wanted: texts, caseSensitive }, not: true };
  },
};
