import type { FieldValue } from '../diff/record';
import { isQuestion, questionsOf, type FormDefinition, type Question } from './definition';
import { withLimit } from './form-words';
import { fitsPattern } from './pattern';
import type { AnswerSetting, ReadAnswer, RefusalCode } from './question-type';
import { questionType } from './question-types/registry';
import { shownItems } from './visibility';

/** An answer that a form does not take, for the person who typed it. */
export interface RefusedAnswer {
  name: string;
  code: RefusalCode;
  message: string;
}

/** The answers of a form by question; an answer given several times or as a list arrives as it is. */
export type Answers = Record<string, unknown>;

/** What a form's answers come to. */
export interface CheckedAnswers {
  refused: RefusedAnswer[];
  /** The names of the items that are shown with these answers. */
  shown: ReadonlySet<string>;
}

/** Checks a form's answers: those of questions that are shown. The browser and the server run this same code. */
export function checkAnswers(
  form: Pick<FormDefinition, 'items'>,
  answers: Answers,
  setting: AnswerSetting,
): CheckedAnswers {
  const read = new Map(
    questionsOf(form).map((question) => [question.name, readAnswer(question, answers[question.name], setting)]),
  );
  const shown = shownItems(form, (name) => valueIn(read.get(name)));
  const refused = form.items.filter(isQuestion).flatMap((question): RefusedAnswer[] => {
    const found = read.get(question.name)!;
    return shown.has(question.name) && found.code
      ? [{ name: question.name, code: found.code, message: found.message }]
      : [];
  });
  return { refused, shown };
}

/** Reads one answer: its value, or why it is not taken. */
export function readAnswer(question: Question, answer: unknown, setting: AnswerSetting): ReadAnswer {
  if (question.type === 'several-of') return readSeveral(question, answer, setting);
  const text = answerAsText(answer);
  if (text === '') return blankAnswer(question, setting);
  const tooLong = lengthProblem(question, text, setting);
  if (tooLong) return tooLong;
  const { pattern } = question.checks ?? {};
  if (pattern && !fitsPattern(text, pattern))
    return { code: 'other-shape', message: withLimit(setting.words.pattern, pattern) };
  return questionType(question.type).read(text, question, setting);
}

function readSeveral(question: Question, answer: unknown, setting: AnswerSetting): ReadAnswer {
  const given = (Array.isArray(answer) ? answer : [answer]).map(answerAsText).filter((text) => text !== '');
  if (!given.length) return blankAnswer(question, setting);
  const values: string[] = [];
  for (const one of given) {
    const read = questionType('several-of').read(one, question, setting);
    if (read.code) return read;
    if (!values.includes(one)) values.push(one);
  }
  return { value: values };
}

function blankAnswer({ required, type }: Question, { words }: AnswerSetting): ReadAnswer {
  const message = required ? questionType(type).blank(words) : null;
  return message === null ? { value: null } : { code: 'required', message };
}

function lengthProblem({ type, checks = {} }: Question, text: string, { words }: AnswerSetting): ReadAnswer | null {
  const most = checks.longest ?? questionType(type).longest;
  if (text.length > most) return { code: 'too-long', message: withLimit(words.longest, most) };
  const { shortest } = checks;
  return shortest !== undefined && text.length < shortest
    ? { code: 'too-short', message: withLimit(words.shortest, shortest) }
    : null;
}

function valueIn(read: ReadAnswer | undefined): FieldValue | null {
  return read && !read.code ? read.value : null;
}

/** An answer as the text that was typed: white space at the ends does not count. A file is known by its name. */
export function answerAsText(answer: unknown): string {
  if (typeof answer === 'string') return answer.trim();
  if (typeof answer === 'number' || typeof answer === 'boolean') return String(answer);
  if (answer === undefined || answer === null) return '';
  if (isFile(answer)) return answer.name;
  return JSON.stringify(answer);
}

/** How a file that came with a submission stands in its payload. */
export interface AnsweredFile {
  file: string;
  name: string;
  type: string;
  size: number;
}

function isFile(answer: unknown): answer is AnsweredFile {
  const { file, name } = answer as Partial<AnsweredFile>;
  return typeof file === 'string' && typeof name === 'string';
}
