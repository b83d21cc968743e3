import type { QuestionType } from '../question-type';

export const yesNo: QuestionType = {
  name: 'yes-no',
  label: 'Yes or no',
  holds: 'yes-no',
  longest: 5,
  height: () => 92,
  blank: (words) => words.requiredChoice,
  read: (given, _question, { words }) =>
    given === 'yes' || given === 'no'
      ? { value: given === 'yes' }
      : { code: 'unknown-choice', message: words.requiredChoice },
  example: { takes: ['yes', true], refuses: 'perhaps' },
};
