import type { QuestionType } from '../question-type';

export const text: QuestionType = {
  name: 'text',
  label: 'Short text',
  holds: 'text',
  longest: 500,
  read: (given) => ({ value: given }),
  example: { takes: ['Fennwick', 'Fennwick'] },
};
