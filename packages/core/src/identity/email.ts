import { warning, type Problem } from '../problem';
import { shorten } from '../text';

/** The most characters of an address: RFC 5321 allows 254 in a path, 64 before the @. */
const LONGEST = 254;
const LONGEST_LOCAL = 64;

/** A valid e-mail address by the WHATWG HTML standard, with letters of any script and at least one dot in the domain. */
const ADDRESS =
  /^[\p{L}\p{N}.!#$%&'*+/=?^_`{|}~-]+@[\p{L}\p{N}](?:[\p{L}\p{N}-]{0,61}[\p{L}\p{N}])?(?:\.[\p{L}\p{N}](?:[\p{L}\p{N}-]{0,61}[\p{L}\p{N}])?)+$/u;

/**
 * The normal form by which two addresses are held to be one: Unicode NFKC, lower case, no display name, no spaces.
 * Lower case before the @ goes beyond RFC 5321, where it may matter, since no provider of note tells them apart.
 */
export function normalEmail(text: string): { ok: true; email: string } | { ok: false; problem?: Problem } {
  const bracketed = text.length <= 2_000 ? /<([^<>]*)>\s*$/.exec(text)?.[1] : undefined;
  const email = (bracketed ?? text)
    .normalize('NFKC')
    .replace(/\s+/g, '')
    .replace(/^mailto:/i, '')
    .toLowerCase();
  if (email === '') return { ok: false };
  if (email.length > LONGEST) {
    return {
      ok: false,
      problem: warning(
        'email-too-long',
        `The e-mail address has ${email.length} characters; at most ${LONGEST} are allowed (RFC 5321).`,
      ),
    };
  }
  if (!ADDRESS.test(email) || email.indexOf('@') > LONGEST_LOCAL) {
    return { ok: false, problem: warning('not-an-email', `“${shorten(text.trim(), 60)}” is not an e-mail address.`) };
  }
  return { ok: true, email };
}
