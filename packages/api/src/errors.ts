import type { ProblemCode } from '@haycart/core';

/** Every code that a problem (RFC 9457) can carry, with its HTTP status and its title. Codes never change. */
export const ERROR_CODES = {
  unreadable: [400, 'The request cannot be read'],
  'not-signed-in': [401, 'Not signed in'],
  'wrong-sign-in': [401, 'E-mail or password is wrong'],
  'entry-link': [401, 'The entry link is missing or stopped working'],
  signature: [401, 'The signature is missing or wrong'],
  'not-allowed': [403, 'Not allowed'],
  'not-found': [404, 'Not found'],
  'unknown-intake': [404, 'There is no such intake'],
  conflict: [409, 'In conflict with what is there'],
  'changed-meanwhile': [409, 'Somebody changed it meanwhile'],
  'in-use': [409, 'Still in use'],
  'cases-differ': [409, 'Saved cases come out otherwise'],
  closed: [409, 'The intake is closed'],
  'too-large': [413, 'Too large'],
  'too-slow': [408, 'The request took too long'],
  'address-too-long': [414, 'The address is too long'],
  'wrong-type': [415, 'This content type is not taken'],
  refused: [422, 'Checked and refused'],
  'files-full': [422, 'No more files are kept'],
  'idempotency-mismatch': [422, 'The idempotency key was used with another body'],
  'too-many': [429, 'Too many requests'],
  internal: [500, 'Something went wrong on our side'],
  'not-available': [503, 'Not available just now'],
} as const satisfies Record<string, readonly [number, string]>;

export type ErrorCode = keyof typeof ERROR_CODES;

/** One thing that is wrong with a request: where (JSON Pointer, RFC 6901), and what. */
export interface ProblemAt {
  at: string;
  code: ProblemCode;
  message: string;
}

/** An error of any address, as `application/problem+json` (RFC 9457). */
export interface ProblemBody {
  type: string;
  title: string;
  status: number;
  code: ErrorCode;
  detail: string;
  errors?: ProblemAt[];
}
