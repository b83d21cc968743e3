import { getDomain, getHostname } from 'tldts';
import { POSTED, type Origin } from './origin';
import type { Visit } from './visit';

export const CHANNELS = ['campaign', 'paid', 'e-mail', 'social', 'search', 'referral', 'file', 'direct'] as const;
export type Channel = (typeof CHANNELS)[number];

/** Where a touch came from. */
export interface Source {
  channel: Channel;
  /** The name people use: `spring-newsletter`, a search engine's or referring site's domain, or `direct`. */
  source: string;
  medium: string | null;
  campaign: string | null;
}

/** A record that a submission touched: where that came from, when, and on which page. */
export interface Touch extends Source {
  record: string;
  /** Without what stands after its path. */
  page: string | null;
  at: string;
}

const SEARCH_WORDS = /(^|\.)(search|suche|zoek)\b/;
const MEDIUM_CHANNELS: [RegExp, Channel][] = [
  [/^(cpc|ppc|cpm|cpv|paid.*|display|banner|retargeting)$/, 'paid'],
  [/^(e-?mail|newsletter)$/, 'e-mail'],
  [/^(social.*|sm)$/, 'social'],
  [/^(organic|search)$/, 'search'],
  [/^(referral|partner|affiliate)$/, 'referral'],
];

/**
 * The source of a visit. A row of a file came by that file: nobody visited. Else campaign parameters first, as they were set
 * on purpose; then the referring site, unless it is the page's own; else direct.
 */
export function sourceOf(visit: Visit, { sheet }: Origin = POSTED): Source {
  const medium = visit.utm_medium?.toLowerCase() ?? null;
  const campaign = visit.utm_campaign ?? null;
  if (sheet) return { channel: 'file', source: sheet, medium, campaign };
  if (visit.utm_source || campaign) {
    const channel = MEDIUM_CHANNELS.find(([pattern]) => pattern.test(medium ?? ''))?.[1] ?? 'campaign';
    return { channel, source: visit.utm_source ?? campaign!, medium, campaign };
  }
  const referrer = siteOf(visit.referrer);
  if (referrer && referrer !== siteOf(visit.page)) {
    const host = getHostname(visit.referrer!) ?? '';
    return { channel: SEARCH_WORDS.test(host) ? 'search' : 'referral', source: referrer, medium, campaign };
  }
  return { channel: 'direct', source: 'direct', medium, campaign };
}

/** A page without what stands after its path, which may tell of a person; `null` where none is known. */
export function pathOf(page: string | undefined): string | null {
  return page?.split(/[?#]/, 1)[0] || null;
}

function siteOf(address: string | undefined): string | null {
  if (!address) return null;
  return getDomain(address) ?? getHostname(address);
}
