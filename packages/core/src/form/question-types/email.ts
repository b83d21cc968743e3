import { normalEmail } from '../../reading/email';
import { ONE_LINE, type QuestionType } from '../question-type';

export const email: QuestionType = {
  name: 'email',
  label: 'E-mail',
  holds: 'email',
  longest: 254,
  height: () => ONE_LINE,
  blank: (words) => words.required,
  read(given, { checks = {} }, { words, isFreeMail, isThrowAway }) {
    // What routes cannot read is said here, while there is somebody who can mend it.
    const read = normalEmail(given);
    if (!read.ok) return { code: 'not-an-email', message: words.email };
    const domain = read.email.slice(read.email.lastIndexOf('@') + 1);
    if (checks.workEmail && isFreeMail?.(domain)) return { code: 'not-a-work-email', message: words.workEmail };
    if (checks.noThrowAway && isThrowAway?.(domain)) return { code: 'throw-away-email', message: words.throwAway };
    return { value: given };
  },
  example: { takes: ['ada@weir.example', 'ada@weir.example'], refuses: 'ada@weir' },
};
