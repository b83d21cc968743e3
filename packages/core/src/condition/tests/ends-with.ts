import { TEXT_TYPES, type ConditionTest } from '../condition-test';
import { wantedTexts } from '../wanted';

export const endsWith: ConditionTest = {
  name: 'ends-with',
  label: 'ends with',
  fits: TEXT_TYPES,
  wanted: 'texts',
  example: { type: 'text', wanted: 'kle', meets: 'Pickle', fails: 'Pickles' },
  compare(wanted, { caseSensitive }) {
    const texts = wantedTexts(wanted);
    return typeof texts === 'string'
      ? texts
      : { comparison: { of: 'text', how: 'ends', wanted: texts, caseSensitive }, not: false };
  },
};
