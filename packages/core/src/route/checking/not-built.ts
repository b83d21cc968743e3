import { jsonPointer } from '../../json';
import { error, type Problem } from '../../problem';
import type { RouteDefinition } from '../../definition/route-definition';
import type { Value } from '../../value/value';

/**
 * Parts of the format that this version cannot carry out yet. A definition that uses one is refused by name, so that
 * nobody publishes a rule which would then be ignored.
 */
export function notBuiltYet(route: RouteDefinition): Problem[] {
  const problems: Problem[] = [];
  const refuse = (what: string, ...way: (string | number)[]) =>
    problems.push(
      error('not-built-yet', `${what} cannot be carried out yet. Leave this out for now.`, jsonPointer(way)),
    );

  route.sendOn?.forEach((sendOn, i) => refuse(`Sending on to “${sendOn.to}”`, 'sendOn', i));
  return problems;
}

/** Every value of a write with the way to it inside the definition. */
export function valuesOf(
  write: RouteDefinition['writes'][number],
  index: number,
): { value: Value; way: (string | number)[] }[] {
  const values = write.fills.map((fill, f) => ({
    value: fill.value,
    way: ['writes', index, 'fills', f, 'value'] as (string | number)[],
  }));
  if (write.place) {
    values.push({ value: write.place.pipeline, way: ['writes', index, 'place', 'pipeline'] });
    values.push({ value: write.place.stage, way: ['writes', index, 'place', 'stage'] });
  }
  return values;
}
