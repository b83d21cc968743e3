import type { QuestionTypeName } from '../definition';
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

/** Every type of question, in the order in which the editor offers them. */
export const QUESTION_TYPE_LIST: readonly QuestionType[] = [
  text,
  longText,
  email,
  phone,
  web,
  wholeNumber,
  decimal,
  money,
  date,
  yesNo,
  oneOf,
  severalOf,
  file,
  address,
  consent,
  hidden,
];

const byName = new Map(QUESTION_TYPE_LIST.map((type) => [type.name, type]));

export function questionType(name: QuestionTypeName): QuestionType {
  return byName.get(name)!;
}
