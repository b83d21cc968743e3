import type { EarlierVisit, Visit } from '@haycart/core';
import { CAMPAIGNS, PAGES, REFERRERS } from '../material';
import type { Random } from '../random';
import type { MadeUp } from '../submissions';

const DAY = 86_400_000;
const SITE = 'https://quillfern.example';

/** How people came before they wrote, the earliest first: most of them by one thing, some by three. */
const WAYS: readonly (readonly (keyof typeof SEEN)[])[] = [
  ['search'],
  ['campaign'],
  ['search', 'campaign'],
  ['campaign', 'search'],
  ['paid', 'search'],
  ['social', 'campaign', 'search'],
];
const SEEN = {
  search: (random: Random): Visit => ({ referrer: random.pick(REFERRERS) }),
  campaign: (random: Random): Visit => ({ ...random.pick(CAMPAIGNS) }),
  paid: (): Visit => ({ utm_source: 'search-ads', utm_medium: 'cpc', utm_campaign: 'glasshouses' }),
  social: (): Visit => ({ utm_source: 'pictures', utm_medium: 'social' }),
};

/** Gives a third of those who write from the site earlier visits, as the landing script keeps them. */
export function withEarlierVisits<Arrival extends Pick<MadeUp, 'intake' | 'at' | 'visit'>>(
  random: Random,
  arrivals: readonly Arrival[],
): Arrival[] {
  return arrivals.map((arrival) => {
    if (arrival.intake !== 'survey' && arrival.intake !== 'pricelist') return arrival;
    const earlier = madeUpEarlierVisits(random, arrival.at);
    return earlier.length ? { ...arrival, visit: { ...arrival.visit, earlier } } : arrival;
  });
}

function madeUpEarlierVisits(random: Random, at: Date): EarlierVisit[] {
  if (!random.chance(0.35)) return [];
  const ways = random.pick(WAYS);
  let before = at.getTime();
  const times = ways.map(() => (before -= random.between(DAY / 12, 9 * DAY))).reverse();
  return ways.map((way, nth) => ({
    id: uuid(random),
    at: new Date(times[nth]!).toISOString(),
    visit: { page: `${SITE}${random.pick(PAGES)}`, ...SEEN[way](random) },
  }));
}

/** A made-up UUID, the same each time the demo is made. */
function uuid(random: Random): string {
  const hex = (length: number) => Array.from({ length }, () => random.between(0, 15).toString(16)).join('');
  return `${hex(8)}-${hex(4)}-4${hex(3)}-8${hex(3)}-${hex(12)}`;
}
