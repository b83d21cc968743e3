import type { QuestionType } from '../question-type';

export const hidden: QuestionType = {
  name: 'hidden',
  label: 'Not shown',
  holds: 'text',
  longest: 1_000,
  read: (given) => ({ value: given }),
  example: { takes: ['web', 'web'] },
};
