import type { QuestionType } from '../question-type';

export const address: QuestionType = {
  name: 'address',
  label: 'Postal address',
  holds: 'long-text',
  longest: 1_000,
  read: (given) => ({ value: given }),
  example: { takes: ['1 Weir Lane\nAB1 2CD', '1 Weir Lane\nAB1 2CD'] },
};
