import type { RouteDefinition } from '../definition/route-definition';
import type { EffectName } from './effect';
import { effectOf } from './registry';

/** The route after one tag, or list, took the place of another: its follow-ups name the one that stays. */
export function withLabelMerged(
  route: RouteDefinition,
  field: 'tags' | 'lists',
  from: string,
  into: string,
): RouteDefinition {
  if (!route.followUps) return route;
  const renamed = (of: EffectName, key: string) => (of === field && key === from ? into : key);
  return { ...route, followUps: route.followUps.map((one) => effectOf(one)?.adopt?.(one, renamed) ?? one) };
}
