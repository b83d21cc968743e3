import { TEXT_TYPES, type ConditionTest } from '../condition-test';
import { wantedTexts } from '../wanted';

export const startsWith: ConditionTest = {
  name: 'starts-with',
  label: 'starts with',
  fits: TEXT_TYPES,
  wanted: 'texts',
  example: { type: 'text', wanted: 'pic', meets: 'Pickle', fails: 'A pickle' },
  compare(wanted, { caseSensitive }) {
    const texts = wantedTexts(wanted);
    return typeof texts === 'string'
      ? texts
      : { comparison: { of: 'text', how: 'starts', wanted: texts, caseSensitive }, not: false };
  },
};
