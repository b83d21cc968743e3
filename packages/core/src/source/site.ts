import { getDomain, getHostname } from 'tldts';

/** A page address without query and fragment, which may contain personal data; null when unknown. */
export function pathOf(page: string | undefined): string | null {
  return page?.split(/[?#]/, 1)[0] || null;
}

/** The host name of the referring site, without `www`; null when there is none, or it belongs to the page's own site. */
export function referringSite(referrer: string | undefined, page: string | undefined): string | null {
  if (!referrer) return null;
  const host = getHostname(referrer) ?? '';
  const site = domainOf(referrer);
  if (!site || site === domainOf(page)) return null;
  return (host || site).replace(/^www\./, '');
}

/** The registered domain of an address or host name: `weir.example` for `forum.weir.example`. */
export function domainOf(address: string | undefined): string | null {
  if (!address) return null;
  return getDomain(address) ?? getHostname(address);
}
