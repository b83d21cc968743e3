import type { RouteLine } from '@haycart/api';

/** By what the list of routes is sorted. */
export const ROUTE_SORTS = ['name', 'lastRunOn', 'written', 'held', 'skipped', 'failed', 'rate', 'saved'] as const;
export type RouteSort = (typeof ROUTE_SORTS)[number];

/** The share of a route’s runs in 30 days that failed, 0 to 1; null for none. */
export function failureRate({ runs }: Pick<RouteLine, 'runs'>): number | null {
  const all = Object.values(runs).reduce((sum, count) => sum + count, 0);
  return all ? runs.failed / all : null;
}

/** The routes whose name, sentence or intake holds some words, in an order. What there is none of comes last. */
export function shownRoutes(routes: readonly RouteLine[], typed: string, sort: RouteSort | null, down: boolean) {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const found = routes.filter((route) => {
    const text = [route.name, route.words.sentence, ...route.from.map(({ name }) => name)].join(' ').toLowerCase();
    return words.every((word) => text.includes(word));
  });
  if (!sort) return found;
  return found.toSorted((a, b) => {
    const [one, other] = [valueOf(a, sort), valueOf(b, sort)];
    if (one === other) return a.name.localeCompare(b.name);
    if (one === null || other === null) return one === null ? 1 : -1;
    const order = typeof one === 'string' ? one.localeCompare(String(other)) : one - Number(other);
    return down ? -order : order;
  });
}

/** The same by intake: a route that takes from several stands under each. */
export function byIntake(routes: readonly RouteLine[]): { name: string; routes: RouteLine[] }[] {
  const groups = new Map<string, RouteLine[]>();
  for (const route of routes)
    for (const name of route.from.length ? route.from.map((from) => from.name) : ['No intake'])
      groups.set(name, [...(groups.get(name) ?? []), route]);
  return [...groups].map(([name, own]) => ({ name, routes: own })).sort((a, b) => a.name.localeCompare(b.name));
}

function valueOf(route: RouteLine, sort: RouteSort): string | number | null {
  switch (sort) {
    case 'name':
      return route.name;
    case 'lastRunOn':
      return route.lastRunOn;
    case 'rate':
      return failureRate(route);
    case 'saved':
      return route.draftSavedAt;
    default:
      return route.runs[sort];
  }
}
