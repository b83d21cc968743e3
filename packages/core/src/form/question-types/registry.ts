import { QUESTION_TYPES, type QuestionTypeName } from '../definition';
import type { QuestionType } from '../question-type';
import { address } from './address';
import { consent } from './consent';
import { date } from './date';
import { decimal } from './decimal';
import { email } from './email';
import { file } from './file';
import { hidden } from './hidden';
import { longText } from './long-text';
import { money } from './money';
import { oneOf } from './one-of';
import { phone } from './phone';
import { severalOf } from './several-of';
import { text } from './text';
import { web } from './web';
import { wholeNumber } from './whole-number';
import { yesNo } from './yes-no';

const TYPES: Record<QuestionTypeName, QuestionType> = {
  text,
  'long-text': longText,
  email,
  phone,
  web,
  'whole-number': wholeNumber,
  decimal,
  money,
  date,
  'yes-no': yesNo,
  'one-of': oneOf,
  'several-of': severalOf,
  file,
  address,
  consent,
  hidden,
};

/** Every type of question, in the order in which the editor offers them. */
export const QUESTION_TYPE_LIST: readonly QuestionType[] = QUESTION_TYPES.map((name) => TYPES[name]);

export function questionType(name: QuestionTypeName): QuestionType {
  return TYPES[name];
}
