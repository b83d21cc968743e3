import { ONE_LINE, type QuestionType } from '../question-type';

export const text: QuestionType = {
  name: 'text',
  label: 'Short text',
  holds: 'text',
  longest: 500,
  height: () => ONE_LINE,
  blank: (words) => words.required,
  read: (given) => ({ value: given }),
  example: { takes: ['Fennwick', 'Fennwick'] },
};
