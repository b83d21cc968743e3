import { error, type Problem } from '../problem';

/** What happens once by itself when a promise is missed; it is shown in any case. */
export type MissedStep =
  /** Somebody gets a task: to answer it. */
  | { do: 'task'; person: string }
  /** The next of the same team gets it. */
  | { do: 'next' };

/** How soon whoever gets an enquiry is to answer it: by a change, a note or a task done, within so many of their working minutes. */
export interface AnswerPromise {
  minutes: number;
  /** Nothing more than showing it, when not said. */
  missed?: MissedStep | undefined;
}

/** The least and the most minutes of a promise: four weeks at work. */
export const PROMISE_MINUTES = { least: 1, most: 10_000 } as const;

/** What is wrong with a promise as it would be kept. */
export function checkPromise({ minutes, missed }: AnswerPromise, people: readonly string[]): Problem[] {
  const { least, most } = PROMISE_MINUTES;
  const problems: Problem[] = [];
  if (!Number.isInteger(minutes) || minutes < least || minutes > most)
    problems.push(
      error('out-of-range', `A promise is a whole number of minutes from ${least} to ${most}.`, '/promise/minutes'),
    );
  if (missed?.do === 'task' && !people.includes(missed.person))
    problems.push(error('unknown-person', 'Choose somebody who is there and active.', '/promise/missed/person'));
  return problems;
}
