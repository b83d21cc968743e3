import type { QuestionType } from '../question-type';

export const consent: QuestionType = {
  name: 'consent',
  label: 'Consent',
  holds: 'yes-no',
  longest: 200,
  read: (given) => ({ value: given !== 'no' }),
  example: { takes: ['yes', true] },
};
