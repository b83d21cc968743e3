import type { RecordKind } from '../../diff/record';
import type { RouteDefinition } from '../../definition/route-definition';

/** A field of a kind of record, by key. */
export interface FieldKeys {
  record: RecordKind;
  key: string;
}

/** Whether a route feeds a field. */
export function feedsField(route: RouteDefinition, { record, key }: FieldKeys): boolean {
  return route.writes.some((write) => write.record === record && write.fills.some(({ field }) => field === key));
}

/**
 * The route with a field fed in its new place, or `null` when it writes no record of that kind, so that there is nowhere
 * to feed it.
 */
export function moveFill(route: RouteDefinition, from: FieldKeys, to: FieldKeys): RouteDefinition | null {
  if (!feedsField(route, from)) return route;
  const target = route.writes.find(({ record }) => record === to.record);
  if (!target) return null;
  const moved = route.writes.flatMap(({ record, fills }) =>
    record === from.record ? fills.filter(({ field }) => field === from.key) : [],
  );
  return {
    ...route,
    writes: route.writes.map((write) => {
      const left = write.record === from.record ? write.fills.filter(({ field }) => field !== from.key) : write.fills;
      const gained = write === target ? moved.slice(0, 1).map((fill) => ({ ...fill, field: to.key })) : [];
      return left.length === write.fills.length && !gained.length ? write : { ...write, fills: [...left, ...gained] };
    }),
  };
}
