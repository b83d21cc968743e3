import { ONE_LINE, type QuestionType } from '../question-type';
import { inRange, readNumber } from './number-in-range';

export const wholeNumber: QuestionType = {
  name: 'whole-number',
  label: 'Whole number',
  holds: 'whole-number',
  longest: 30,
  height: () => ONE_LINE,
  blank: (words) => words.required,
  read(given, question, setting) {
    const number = readNumber(given);
    return number !== null && Number.isSafeInteger(number)
      ? inRange(number, question, setting)
      : { code: 'not-a-number', message: setting.words.wholeNumber };
  },
  example: { question: { checks: { most: 40 } }, takes: ['6', 6], refuses: '60' },
};
