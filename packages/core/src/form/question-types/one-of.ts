import { choicesHeight, ONE_LINE, type QuestionType } from '../question-type';

export const oneOf: QuestionType = {
  name: 'one-of',
  label: 'One of several',
  holds: 'one-of',
  longest: 200,
  height: ({ shownAs, options = [] }) =>
    shownAs === 'radios' || shownAs === 'cards' ? choicesHeight(options.length) : ONE_LINE,
  blank: (words) => words.requiredChoice,
  read: (given, { options = [] }, { words }) =>
    options.some(({ value }) => value === given) ? { value: given } : { code: 'unknown-choice', message: words.choice },
  example: { question: { options: [{ value: 'a', label: 'A' }] }, takes: ['a', 'a'], refuses: 'b' },
};
