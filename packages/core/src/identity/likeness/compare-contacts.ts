import { editDistance } from '../comparators/damerau-levenshtein';
import { DIFFERENT, NOT_TOLD, type Agreement } from './agreement';
import type { ComparedRecord } from './compared';

/** The shortest part before the @ that tells somebody; shorter ones are initials that many share. */
const TELLING_LOCAL = 5;
/** The digits at the end of a phone number that are the same however the country was written. */
const LAST_DIGITS = 8;

/**
 * Who moves to another company gets another address there and keeps the number: where the company differs and the number is
 * the same, such an address tells nothing more.
 */
export function compareEmails(
  one: ComparedRecord,
  other: ComparedRecord,
  { phone, company }: { phone: Agreement; company: Agreement },
): Agreement {
  const agreement = compareMailboxes(one, other);
  const moved = company.level === 'far' && phone.level === 'exact';
  return agreement === DIFFERENT && moved && isOfCompany(one) && isOfCompany(other)
    ? { level: 'missing', how: 'goes-with-company' }
    : agreement;
}

function compareMailboxes(one: ComparedRecord, other: ComparedRecord): Agreement {
  const same = one.mailboxes.find((mailbox) => other.mailboxes.includes(mailbox));
  if (same !== undefined) return { level: 'exact', how: 'same', value: same };
  const sharing = one.sharedMailboxes.some((mailbox) => other.sharedMailboxes.includes(mailbox));
  if (!one.mailboxes.length || !other.mailboxes.length)
    return sharing ? { level: 'missing', how: 'shared-mailbox' } : NOT_TOLD;
  for (const a of one.mailboxes)
    for (const b of other.mailboxes) {
      const near = nearlyOneMailbox(a, b);
      if (near && isMadeOfName(a, one) && isMadeOfName(b, other)) return NOT_TOLD;
      if (near) return near;
    }
  return DIFFERENT;
}

function nearlyOneMailbox(one: string, other: string): Agreement | null {
  const [a, b] = [parts(one), parts(other)];
  if (a.local.length < TELLING_LOCAL || b.local.length < TELLING_LOCAL) return null;
  if (withoutPoints(a.local) === withoutPoints(b.local) && a.domain !== b.domain)
    return editDistance(a.domain, b.domain, 2) <= 2
      ? { level: 'near', how: 'typing' }
      : { level: 'near', how: 'other-domain' };
  // Numbers are given out one after the other: `weir20@` and `weir27@` are two people.
  if (a.local.replace(/\d+/g, '') === b.local.replace(/\d+/g, '')) return null;
  // `j.weir@` and `k.weir@` are two people: an error in the first letter is not taken for one.
  const typed = a.domain === b.domain && a.local[0] === b.local[0] && editDistance(a.local, b.local, 1) === 1;
  return typed ? { level: 'near', how: 'typing' } : null;
}

/** Whether each address is at a domain of the company. */
function isOfCompany({ mailboxes, companies: { domains } }: ComparedRecord): boolean {
  return mailboxes.every((mailbox) =>
    domains.some((domain) => mailbox.endsWith(`@${domain}`) || mailbox.endsWith(`.${domain}`)),
  );
}

/** Whether the part before the @ is nothing but the name, so that it tells nothing that the name has not told. */
function isMadeOfName(mailbox: string, { name }: ComparedRecord): boolean {
  if (!name) return false;
  let rest = parts(mailbox).local.replace(/[^a-z0-9]/g, '');
  for (const word of [...name.family, ...name.given].sort((a, b) => b.length - a.length)) rest = rest.replace(word, '');
  return rest.length <= 3 && !/\d/.test(rest);
}

/** Mail services that ignore points had theirs taken out before. */
function withoutPoints(local: string): string {
  return local.replaceAll('.', '');
}

function parts(mailbox: string): { local: string; domain: string } {
  const at = mailbox.lastIndexOf('@');
  return { local: mailbox.slice(0, at), domain: mailbox.slice(at + 1) };
}

export function comparePhones(one: ComparedRecord, other: ComparedRecord): Agreement {
  if (!one.phones.length || !other.phones.length) return NOT_TOLD;
  const same = one.phones.find((phone) => other.phones.includes(phone));
  if (same !== undefined) return { level: 'exact', how: 'same', value: same };
  const near = one.phones.some((a) => other.phones.some((b) => a.slice(-LAST_DIGITS) === b.slice(-LAST_DIGITS)));
  return near ? { level: 'near', how: 'part' } : DIFFERENT;
}

export function compareCountries(one: ComparedRecord, other: ComparedRecord): Agreement {
  if (!one.country || !other.country) return NOT_TOLD;
  return one.country === other.country ? { level: 'exact', how: 'same', value: one.country } : DIFFERENT;
}
