import type { QuestionType } from '../question-type';

export const address: QuestionType = {
  name: 'address',
  label: 'Postal address',
  holds: 'long-text',
  longest: 1_000,
  height: () => 267,
  blank: (words) => words.required,
  read: (given) => ({ value: given }),
  example: { takes: ['1 Weir Lane\nAB1 2CD', '1 Weir Lane\nAB1 2CD'] },
};
