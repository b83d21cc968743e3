import { sameJson, type JsonValue } from '../../json';
import type { RouteDefinition } from '../../definition/route-definition';

/**
 * A definition that says the same, with the fills that another one has too taken from that one, so that each is worked
 * out once for both; see `workOutFill`.
 */
export function sharingFills(route: RouteDefinition, other: RouteDefinition): RouteDefinition {
  return {
    ...route,
    writes: route.writes.map((write) => {
      const same = other.writes.find(({ as, record }) => as === write.as && record === write.record);
      if (!same) return write;
      return {
        ...write,
        fills: write.fills.map(
          (fill) =>
            same.fills.find((one) => sameJson(one as unknown as JsonValue, fill as unknown as JsonValue)) ?? fill,
        ),
      };
    }),
  };
}
