import { ONE_LINE, type QuestionType } from '../question-type';

export const phone: QuestionType = {
  name: 'phone',
  label: 'Phone',
  holds: 'phone',
  longest: 60,
  height: () => ONE_LINE,
  blank: (words) => words.required,
  read(given, { country }, { words, isPhone }) {
    const digits = given.replace(/\D/g, '').length;
    const couldBe = /^[+\d\s().\-/xext]*$/i.test(given) && digits >= 6 && digits <= 15;
    // What routes cannot read is said here, while there is somebody who can mend it.
    const told = country !== undefined || given.startsWith('+');
    return couldBe && (!told || !isPhone || isPhone(given, country ?? ''))
      ? { value: given }
      : { code: 'not-a-phone', message: words.phone };
  },
  example: { takes: ['+44 (0)7700 900-318', '+44 (0)7700 900-318'], refuses: 'ring me' },
};
