import { ONE_LINE, type QuestionType } from '../question-type';
import { inRange, readNumber } from './number-in-range';

export const decimal: QuestionType = {
  name: 'decimal',
  label: 'Number',
  holds: 'decimal',
  longest: 30,
  height: () => ONE_LINE,
  blank: (words) => words.required,
  read(given, question, setting) {
    const number = readNumber(given);
    return number !== null && Number.isFinite(number)
      ? inRange(number, question, setting)
      : { code: 'not-a-number', message: setting.words.number };
  },
  example: { takes: ['2,5', 2.5], refuses: 'two' },
};
