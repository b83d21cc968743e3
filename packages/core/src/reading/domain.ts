import { mailServices } from '#libraries';
import { parse } from 'tldts';
import { remembered } from '../remembered';

/** Where anybody may have a page of their own under one name. */
const SHARED_HOSTS = 'facebook.com instagram.com linkedin.com twitter.com x.com youtube.com tiktok.com linktr.ee'.split(
  ' ',
);
const EXAMPLES = ['example.com', 'example.net', 'example.org'];

let known: { free: ReadonlySet<string>; shared: ReadonlySet<string> } | undefined;

/** Free mailboxes; and those with throw-away ones, shared hosts, and what RFC 2606 keeps for examples: strangers share them. */
function services(): { free: ReadonlySet<string>; shared: ReadonlySet<string> } {
  if (!known) {
    const { free, throwAway } = mailServices.now;
    known = { free: new Set(free), shared: new Set([...free, ...throwAway, ...SHARED_HOSTS, ...EXAMPLES]) };
  }
  return known;
}

/** Whether a domain belongs to a free mail service, where private people have their mailboxes. */
export function isFreeMailDomain(domain: string): boolean {
  return services().free.has(domain.toLowerCase());
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
  if (!domain || isPrivate) return null;
  const { shared } = services();
  return shared.has(domain) || shared.has(host) ? null : domain;
});
