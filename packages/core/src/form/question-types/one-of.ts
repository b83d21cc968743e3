import type { QuestionType } from '../question-type';

export const oneOf: QuestionType = {
  name: 'one-of',
  label: 'One of several',
  holds: 'one-of',
  longest: 200,
  read: (given, { options = [] }, { words }) =>
    options.some(({ value }) => value === given) ? { value: given } : { code: 'unknown-choice', message: words.choice },
  example: { question: { options: [{ value: 'a', label: 'A' }] }, takes: ['a', 'a'], refuses: 'b' },
};
