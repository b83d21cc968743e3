import { plainDecimal } from '../../reading/money';
import type { Question } from '../definition';
import type { AnswerSetting, ReadAnswer } from '../question-type';
import { withLimit } from '../form-words';

/** A number as people write it, `12.500,5` or `12,500.5`; `null` when it is none. */
export function readNumber(given: string): number | null {
  const negative = given.startsWith('-');
  const plain = plainDecimal(negative ? given.slice(1).trim() : given);
  return plain === null ? null : negative ? -Number(plain) : Number(plain);
}

/** Whether a number lies where the question wants it. */
export function inRange(number: number, { checks = {} }: Question, { words }: AnswerSetting): ReadAnswer {
  const { least, most } = checks;
  if (least !== undefined && number < Number(least))
    return { code: 'too-small', message: withLimit(words.least, least) };
  if (most !== undefined && number > Number(most)) return { code: 'too-large', message: withLimit(words.most, most) };
  return { value: number };
}
