import { ProblemError } from '../platform/errors/problem-error';

/** A name as it is kept: one line without spaces around it. @throws ProblemError 422 with its place for a blank one, and for line breaks and the like */
export function plainName(name: string, at = '/name'): string {
  const plain = name.trim();
  if (plain !== '' && !/\p{Cc}/u.test(plain)) return plain;
  const message = plain === '' ? 'A name is needed.' : 'A name is one line, without characters that cannot be seen.';
  throw new ProblemError('refused', message, [{ at, code: plain === '' ? 'name-blank' : 'wrong-value', message }]);
}
