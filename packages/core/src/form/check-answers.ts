import { normalEmail } from '../identity/email';
import type { Question } from './definition';

/** An answer that a form does not take, for the person who typed it. */
export interface RefusedAnswer {
  name: string;
  code: 'required' | 'not-an-email' | 'not-a-phone' | 'unknown-choice' | 'too-long';
  message: string;
}

/** The answers of a form by question; an answer given several times or as a list arrives as it is. */
export type Answers = Record<string, unknown>;

const LONGEST: Record<Question['type'], number> = {
  text: 500,
  email: 254,
  phone: 60,
  choice: 200,
  'long-text': 10_000,
  consent: 200,
  hidden: 1_000,
};

/** Checks a form's answers. The browser and the server run this same code; it must stay small. */
export function checkAnswers(questions: readonly Question[], answers: Answers): RefusedAnswer[] {
  return questions.flatMap((question) => checkAnswer(question, answers[question.name]) ?? []);
}

/** Checks one answer; `null` when it is taken. */
export function checkAnswer(question: Question, answer: unknown): RefusedAnswer | null {
  const refuse = (code: RefusedAnswer['code'], message: string): RefusedAnswer => ({
    name: question.name,
    code,
    message,
  });
  const text = answerAsText(answer);
  if (text === '')
    return question.required && question.type !== 'hidden' ? refuse('required', requiredMessage(question)) : null;
  const most = question.longest ?? LONGEST[question.type];
  if (text.length > most) return refuse('too-long', `This has ${text.length} characters; please use at most ${most}.`);
  switch (question.type) {
    case 'email':
      // What routes cannot read is said here, while there is somebody who can mend it.
      return normalEmail(text).ok
        ? null
        : refuse('not-an-email', 'Please check the address: it should look like name@example.com.');
    case 'phone':
      return isPhone(text) ? null : refuse('not-a-phone', 'Please give a phone number with 6 to 15 digits.');
    case 'choice':
      return question.options?.some(({ value }) => value === text)
        ? null
        : refuse('unknown-choice', 'Please choose one of the answers.');
    default:
      return null;
  }
}

/** An answer as the text that was typed: white space at the ends does not count. */
export function answerAsText(answer: unknown): string {
  if (typeof answer === 'string') return answer.trim();
  if (typeof answer === 'number' || typeof answer === 'boolean') return String(answer);
  return answer === undefined || answer === null ? '' : JSON.stringify(answer);
}

function isPhone(text: string): boolean {
  const digits = text.replace(/\D/g, '').length;
  return /^[+\d\s().\-/xext]*$/i.test(text) && digits >= 6 && digits <= 15;
}

function requiredMessage(question: Question): string {
  if (question.type === 'consent') return 'Please tick this to go on.';
  if (question.type === 'choice') return 'Please choose one of the answers.';
  return 'Please fill this in.';
}
