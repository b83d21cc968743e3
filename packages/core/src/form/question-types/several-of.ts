import { choicesHeight, type QuestionType } from '../question-type';

/** Its answers arrive as a list, or as one; the reader of answers asks for each by itself. */
export const severalOf: QuestionType = {
  name: 'several-of',
  label: 'Several of several',
  holds: 'several-of',
  longest: 200,
  height: ({ options = [] }) => choicesHeight(options.length),
  blank: (words) => words.requiredChoice,
  read: (given, { options = [] }, { words }) =>
    options.some(({ value }) => value === given)
      ? { value: [given] }
      : { code: 'unknown-choice', message: words.choice },
  example: { question: { options: [{ value: 'a', label: 'A' }] }, takes: ['a', ['a']], refuses: 'b' },
};
