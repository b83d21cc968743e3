import { withLimit } from '../form-words';
import { ONE_LINE, type QuestionType } from '../question-type';

export const date: QuestionType = {
  name: 'date',
  label: 'Date',
  holds: 'date',
  longest: 10,
  height: () => ONE_LINE,
  blank: (words) => words.required,
  read(given, { checks = {} }, { words }) {
    const time = Date.parse(`${given}T00:00:00Z`);
    if (!/^\d{4}-\d{2}-\d{2}$/.test(given) || Number.isNaN(time) || !new Date(time).toISOString().startsWith(given))
      return { code: 'not-a-date', message: words.date };
    if (checks.least !== undefined && given < String(checks.least))
      return { code: 'too-small', message: withLimit(words.least, checks.least) };
    if (checks.most !== undefined && given > String(checks.most))
      return { code: 'too-large', message: withLimit(words.most, checks.most) };
    return { value: given };
  },
  example: { takes: ['2027-03-14', '2027-03-14'], refuses: '2027-02-30' },
};
