import type { FamilyNotation } from '../family-notation';

export const yesNo: FamilyNotation = {
  examples: ['yes', 'no', 'blank'],
  read(typed) {
    const word = typed.toLowerCase();
    return word === 'yes' || word === 'no' ? { test: word } : 'Type yes or no.';
  },
  show: ({ test }) => (test === 'yes' || test === 'no' ? test : null),
};
