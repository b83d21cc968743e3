import type { QuestionType } from '../question-type';

export const longText: QuestionType = {
  name: 'long-text',
  label: 'Long text',
  holds: 'long-text',
  longest: 10_000,
  height: () => 146,
  blank: (words) => words.required,
  read: (given) => ({ value: given }),
  example: { takes: ['Two\nlines', 'Two\nlines'] },
};
