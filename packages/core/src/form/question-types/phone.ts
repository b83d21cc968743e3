import type { QuestionType } from '../question-type';

export const phone: QuestionType = {
  name: 'phone',
  label: 'Phone',
  holds: 'phone',
  longest: 60,
  read(given, _question, { words }) {
    const digits = given.replace(/\D/g, '').length;
    return /^[+\d\s().\-/xext]*$/i.test(given) && digits >= 6 && digits <= 15
      ? { value: given }
      : { code: 'not-a-phone', message: words.phone };
  },
  example: { takes: ['+44 (0)7700 900-318', '+44 (0)7700 900-318'], refuses: 'ring me' },
};
