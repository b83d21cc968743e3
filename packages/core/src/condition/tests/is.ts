import { TEXT_TYPES, type ConditionTest } from '../condition-test';
import { wantedTexts } from '../wanted';

export const is: ConditionTest = {
  name: 'is',
  label: 'is',
  fits: TEXT_TYPES,
  wanted: 'texts',
  example: { type: 'text', wanted: ['Pickle', 'Leek'], meets: 'pickle', fails: 'Pickles' },
  compare(wanted, { caseSensitive }) {
    const texts = wantedTexts(wanted);
    return typeof texts === 'string'
      ? texts
      : { comparison: { of: 'text', how: 'equals', wanted: texts, caseSensitive }, not: false };
  },
};
