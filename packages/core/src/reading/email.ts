import { warning, type Problem } from '../problem';
import { shorten, trimWhere } from '../text';

/** The most characters of an address: RFC 5321 allows 254 in a path, 64 before the @. */
const LONGEST = 254;
const LONGEST_LOCAL = 64;
/** Longer texts are no address with a name before it. */
const LONGEST_FIELD = 2_000;

/** A valid e-mail address by the WHATWG HTML standard, with letters of any script and at least one dot in the domain. */
const ADDRESS =
  /^[\p{L}\p{N}.!#$%&'*+/=?^_`{|}~-]+@[\p{L}\p{N}](?:[\p{L}\p{N}-]{0,61}[\p{L}\p{N}])?(?:\.[\p{L}\p{N}](?:[\p{L}\p{N}-]{0,61}[\p{L}\p{N}])?)+$/u;

/**
 * The normal form by which two addresses are held to be one: Unicode NFKC, lower case, no display name, no stray spaces.
 * Lower case before the @ goes beyond RFC 5321, where it may matter, since no provider of note tells them apart.
 */
export function normalEmail(text: string): { ok: true; email: string } | { ok: false; problem?: Problem } {
  const given = text.trim();
  if (given.length > LONGEST_FIELD) return tooLong(given.length);
  const email = withoutWrapping((/<([^<>]*)>$/.exec(given)?.[1] ?? given).normalize('NFKC').replace(UNSEEN, ''))
    .split(/([@.])/)
    .map((part) => part.trim())
    .join('')
    .toLowerCase();
  if (email === '') return { ok: false };
  if (email.length > LONGEST) return tooLong(email.length);
  if (!ADDRESS.test(email) || email.indexOf('@') > LONGEST_LOCAL) {
    return { ok: false, problem: warning('not-an-email', `“${shorten(text.trim(), 60)}” is not an e-mail address.`) };
  }
  return { ok: true, email };
}

/** Characters that nobody sees: marks of direction and order, spaces of no width. */
const UNSEEN = /\p{Cf}/gu;
const [BEFORE, AFTER] = [/[\s"'“”‘’„«»([<,;:]/, /[\s"'“”‘’«»)\]>.,;:]/];

/** An address without what people and programs put around it: quotes, brackets, `mailto:`, a note, a full stop. */
function withoutWrapping(text: string): string {
  const isNote = (at: number) => at > 0 && text.indexOf('@') < at;
  const note = text.endsWith(')') ? text.lastIndexOf('(') : -1;
  const query = text.indexOf('?');
  const isLink = /^mailto:/i.test(text);
  const cut = isLink && isNote(query) ? query : isNote(note) ? note : text.length;
  const inner = text.slice(0, cut).replace(/^\s*(?:mailto|e-?mail)\s*:/i, '');
  let begin = 0;
  while (begin < inner.length && BEFORE.test(inner[begin]!)) begin += 1;
  return trimWhere(inner.slice(begin), (character) => AFTER.test(character), 'end');
}

function tooLong(length: number): { ok: false; problem: Problem } {
  const text = `The e-mail address has ${length} characters; at most ${LONGEST} are allowed (RFC 5321).`;
  return { ok: false, problem: warning('email-too-long', text) };
}

/** What divides addresses that stand in one field. */
const DIVIDERS = /[,;|/\s]+/;
const MOST_IN_FIELD = 20;

/** The addresses that stand in one field, such as `ada@x.example; bo@x.example`; none where something else stands there too. */
export function severalEmails(text: string): string[] {
  if (text.length > LONGEST_FIELD) return [];
  const parts = text.split(DIVIDERS).filter((part) => part !== '' && part !== 'or' && part !== 'and');
  const read = parts.slice(0, MOST_IN_FIELD).map((part) => normalEmail(part));
  return parts.length <= MOST_IN_FIELD && read.every(({ ok }) => ok)
    ? [...new Set(read.flatMap((one) => (one.ok ? [one.email] : [])))]
    : [];
}
