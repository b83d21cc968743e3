import { minorDigits, readMoney } from '../../reading/money';
import { ONE_LINE, type QuestionType } from '../question-type';
import { inRange } from './number-in-range';

export const money: QuestionType = {
  name: 'money',
  label: 'Money',
  holds: 'money',
  longest: 60,
  height: () => ONE_LINE,
  blank: (words) => words.required,
  read(given, question, setting) {
    const amount = readMoney(given, question.currency ?? 'EUR');
    if (!amount) return { code: 'not-an-amount', message: setting.words.money };
    const checked = inRange(amount.amount / 10 ** minorDigits(amount.currency), question, setting);
    return checked.code ? checked : { value: amount };
  },
  example: {
    question: { currency: 'GBP' },
    takes: ['£ 48,000', { amount: 4_800_000, currency: 'GBP' }],
    refuses: 'a lot',
  },
};
