import type { Problem } from '@haycart/core';
import { ERROR_CODES, type ErrorCode, type ProblemAt, type ProblemBody } from '@haycart/api';

/** An error for whoever asked: a code of the list, and a sentence they can act on. */
export class ProblemError extends Error {
  override name = 'ProblemError';

  constructor(
    readonly code: ErrorCode,
    readonly detail: string,
    readonly errors?: ProblemAt[],
    /** Seconds after which to try again. */
    readonly retryAfter?: number,
  ) {
    super(detail);
  }

  get status(): number {
    return ERROR_CODES[this.code][0];
  }

  body(): ProblemBody {
    const [status, title] = ERROR_CODES[this.code];
    const body: ProblemBody = { type: `/api/docs#${this.code}`, title, status, code: this.code, detail: this.detail };
    return this.errors?.length ? { ...body, errors: this.errors } : body;
  }

  headers(): Record<string, string> {
    return this.retryAfter === undefined ? {} : { 'retry-after': String(this.retryAfter) };
  }
}

/** The core's problems as parts of an answer. */
export function problemsAt(problems: readonly Problem[], before = ''): ProblemAt[] {
  return problems.map(({ at, code, text }) => ({ at: `${before}${at ?? ''}`, code, message: text }));
}

/** What stands in the way when the database cannot be used. */
export function databaseNotAvailable(full: boolean): ProblemError {
  const detail = full
    ? 'The storage is full, so nothing can be taken. Nothing of this request was kept; send it again later.'
    : 'The database cannot be reached just now. Nothing of this request was kept; send it again.';
  return new ProblemError('not-available', detail, undefined, full ? 60 : 5);
}
