import { TEXT_TYPES, type ConditionTest } from '../condition-test';
import { wantedTexts } from '../wanted';

export const contains: ConditionTest = {
  name: 'contains',
  label: 'contains',
  fits: TEXT_TYPES,
  wanted: 'texts',
  example: { type: 'text', wanted: 'ick', meets: 'PICKLE', fails: 'Onion' },
  compare(wanted, { caseSensitive }) {
    const texts = wantedTexts(wanted);
    return typeof texts === 'string'
      ? texts
      : { comparison: { of: 'text', how: 'contains', wanted: texts, caseSensitive }, not: false };
  },
};
