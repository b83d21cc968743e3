import type { FieldType } from '../field/field-definition';
import type { FieldValue } from '../diff/record';
import type { ProblemCode } from '../codes';
import type { Question, QuestionTypeName } from './definition';
import type { FormWords } from './form-words';

export type RefusalCode =
  | 'required'
  | 'not-an-email'
  | 'not-a-work-email'
  | 'throw-away-email'
  | 'not-a-phone'
  | 'not-a-web-address'
  | 'not-a-number'
  | 'not-an-amount'
  | 'not-a-date'
  | 'unknown-choice'
  | 'too-long'
  | 'too-short'
  | 'too-small'
  | 'too-large'
  | 'other-shape'
  | 'not-a-file'
  | 'wrong-file-type'
  | 'file-too-large';

/** An answer that was read: its value, or why it is not taken. */
export type ReadAnswer = { value: FieldValue | null; code?: undefined } | { code: RefusalCode; message: string };

/** What checking may know besides the question. */
export interface AnswerSetting {
  words: FormWords;
  /** Whether a domain belongs to a free mail service; not known in the browser, so the server looks again. */
  isFreeMail?: ((domain: string) => boolean) | undefined;
  isThrowAway?: ((domain: string) => boolean) | undefined;
  /** Whether a number can be dialled from a country (ISO 3166-1); the browser knows only that it has digits enough. */
  isPhone?: ((text: string, country: string) => boolean) | undefined;
}

/** Something wrong with a question: the property that it stands at, if it stands at one. */
export interface QuestionFlaw {
  code: ProblemCode;
  severity: 'error' | 'warning';
  /** A sentence that goes on after the question's name: `names no version of its words.` */
  text: string;
  at?: keyof Question;
}

/** The height of a question that is answered in one line. */
export const ONE_LINE = 74;
/** The height of choices that stand one beneath the other. */
export const choicesHeight = (choices: number) => 28 + choices * 33;

/** One type of question. A registry entry: add a file and a line in `registry.ts`. */
export interface QuestionType {
  name: QuestionTypeName;
  /** As the editor offers it. */
  label: string;
  /** The type of value that its answers have, for conditions and for the field that they feed. */
  holds: FieldType;
  /** The most characters when the question does not say. */
  longest: number;
  /** How high it is shown before anything is answered, with its words: pixels at about 640 px of width; 0 when it is not shown. */
  height(question: Question): number;
  /** What is said where an answer is needed and none was given; `null` where that is never asked of a visitor. */
  blank(words: FormWords): string | null;
  /** What is wrong with a question of this type, beyond what may be wrong with any. */
  flaws?(question: Question): QuestionFlaw[];
  /** Reads an answer that is not blank. */
  read(text: string, question: Question, setting: AnswerSetting): ReadAnswer;
  /** An example that the tests run: what is taken and what is refused. */
  example: { question?: Partial<Question>; takes: [given: string, value: FieldValue]; refuses?: string };
}
