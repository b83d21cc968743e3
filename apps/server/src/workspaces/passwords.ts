import { hash, verify } from '@node-rs/argon2';
import { dictionary } from '@zxcvbn-ts/language-common';
import { ProblemError } from '../platform/errors/problem-error';

/** The lengths of passwords; longer ones only cost time. */
export const PASSWORD_LENGTH = { least: 10, most: 200 } as const;

/** Passwords that are tried first, from lists of leaked ones. */
const COMMON: ReadonlySet<string> = new Set(dictionary['passwords-common'] as string[]);
/** What a wrong e-mail address is checked against, so that it takes as long as a wrong password. */
const NOBODY = hash('nobody has this password');

/**
 * Returns a password as it is kept (argon2id).
 *
 * @throws ProblemError 422 for one that is short, common, or the person's own address.
 */
export async function keptPassword(password: string, email: string): Promise<string> {
  const problem = passwordProblem(password, email);
  if (problem)
    throw new ProblemError('refused', problem, [{ at: '/password', code: 'weak-password', message: problem }]);
  return hash(password);
}

function passwordProblem(password: string, email: string): string | null {
  if (password.length < PASSWORD_LENGTH.least) return `A password has at least ${PASSWORD_LENGTH.least} characters.`;
  const plain = password.toLowerCase();
  const stem = plain.replace(/[^a-z]/g, '');
  if (COMMON.has(plain) || COMMON.has(stem) || new Set(plain).size < 4)
    return 'This password is too common. Choose another.';
  if (plain.includes(email.toLowerCase().split('@', 1)[0]!) && plain.length < 2 * email.length)
    return 'A password must not be made of the e-mail address.';
  return null;
}

/** Whether a password is the one that is kept; takes as long where none is. */
export async function isPassword(kept: string | null, password: string): Promise<boolean> {
  const right = await verify(kept ?? (await NOBODY), password);
  return right && kept !== null;
}
