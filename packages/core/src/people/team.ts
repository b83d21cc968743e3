import type { AnswerPromise } from './answer-promise';

/** People who share work. */
export interface Team {
  name: string;
  /** The keys of its people. */
  people: readonly string[];
  /** How soon they answer. */
  promise?: AnswerPromise | undefined;
}
