import type { FieldType } from '../destination/field-definition';
import type { FieldValue } from '../diff/record';
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

/** One type of question. A registry entry: add a file and a line in `registry.ts`. */
export interface QuestionType {
  name: QuestionTypeName;
  /** As the editor offers it. */
  label: string;
  /** The type of value that its answers have, for conditions and for the field that they feed. */
  holds: FieldType;
  /** The most characters when the question does not say. */
  longest: number;
  /** Reads an answer that is not blank. */
  read(text: string, question: Question, setting: AnswerSetting): ReadAnswer;
  /** An example that the tests run: what is taken and what is refused. */
  example: { question?: Partial<Question>; takes: [given: string, value: FieldValue]; refuses?: string };
}
