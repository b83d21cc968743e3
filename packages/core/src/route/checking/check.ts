import { fieldOf, type Destination } from '../../destination/destination';
import { optionFor } from '../../field/field-value';
import { holdRuleOf } from '../../hold/registry';
import { jsonPointer } from '../../json';
import { error, warning, type Problem } from '../../problem';
import type { Condition, RouteDefinition, Write } from '../../definition/route-definition';
import type { Part, Value } from '../../value/value';
import { clausesOf } from '../../condition/condition';
import { checkCondition } from '../../condition/evaluate';
import { conditionSetting, partType } from '../editing/route-conditions';
import { checkTables } from './check-decisions';
import { checkEffect, effectValues } from './check-effects';
import { checkMatch } from './check-match';
import { checkOwners } from './check-owner';
import { checkPlace } from './check-place';
import { checkPart, checkValue } from './check-value';
import { notBuiltYet, valuesOf } from './not-built';
import type { RouteSurroundings } from './surroundings';

/** Whether a test makes sense does not depend on the time. */
const ANY_TIME = '2026-01-01T00:00:00.000Z';

/**
 * Everything that is wrong with a route of the right shape: names that do not exist, required fields that nothing
 * feeds, and what is not built yet. Errors stand in the way of publishing; warnings do not.
 */
export function checkRoute(route: RouteDefinition, surroundings: RouteSurroundings): Problem[] {
  return [
    ...checkFrom(route, surroundings),
    ...(route.onlyWhen ? checkClauses(route.onlyWhen, ['onlyWhen'], route, 0, surroundings) : []),
    ...notBuiltYet(route),
    ...checkTables(route, surroundings),
    ...checkWrites(route, surroundings),
    ...checkOwners(route, surroundings.destination),
    ...checkFollowUps(route, surroundings),
    ...checkHolds(route, surroundings),
  ];
}

function checkFrom(route: RouteDefinition, { intakes }: RouteSurroundings): Problem[] {
  if (!route.from.length) return [error('no-intake', 'The route takes from no intake. Choose at least one.', '/from')];
  return route.from.flatMap((key, i) =>
    intakes.some((intake) => intake.key === key)
      ? []
      : [error('unknown-intake', `There is no intake with the key “${key}”.`, jsonPointer(['from', i]))],
  );
}

function checkWrites(route: RouteDefinition, surroundings: RouteSurroundings): Problem[] {
  if (!route.writes.length) return [error('no-write', 'The route writes no record. Add at least one.', '/writes')];
  return route.writes.flatMap((write, w) => [
    ...checkNames(route, write, w),
    ...(write.when ? checkClauses(write.when, ['writes', w, 'when'], route, w, surroundings) : []),
    ...checkMatch(write, w),
    ...checkFills(write, w, surroundings.destination),
    ...checkPlace(write, w, surroundings.destination),
    ...valuesOf(write, w).flatMap(({ value, way }) => checkValue(value, way, route, w, surroundings)),
  ]);
}

/** What holds say by their kinds; their conditions may name every write: they are looked at once all is planned. */
function checkHolds(route: RouteDefinition, surroundings: RouteSurroundings): Problem[] {
  const { destination } = surroundings;
  return (route.holds ?? []).flatMap((hold, h) => [
    ...(holdRuleOf(hold)?.check(hold, { route, destination }) ?? []).map(({ code, text, way }) =>
      error(code, text, jsonPointer(['holds', h, ...way])),
    ),
    ...(hold.when ? checkClauses(hold.when, ['holds', h, 'when'], route, route.writes.length, surroundings) : []),
  ]);
}

/** Follow-ups are done once all is written, so they may name every write. */
function checkFollowUps(route: RouteDefinition, surroundings: RouteSurroundings): Problem[] {
  const { destination } = surroundings;
  const all = route.writes.length;
  return (route.followUps ?? []).flatMap((followUp, f) => [
    ...checkEffect(followUp, f, { route, destination }),
    ...(followUp.when ? checkClauses(followUp.when, ['followUps', f, 'when'], route, all, surroundings) : []),
    ...effectValues(followUp, f).flatMap(({ value, way }) => checkValue(value, way, route, all, surroundings)),
  ]);
}

/** A condition: its tests fit what they test, and everything that it names exists before write `w`. */
function checkClauses(
  condition: Condition,
  way: (string | number)[],
  route: RouteDefinition,
  w: number,
  surroundings: RouteSurroundings,
): Problem[] {
  const { destination } = surroundings;
  const typeOf = (part: Part, test: string) => partType(part, test, route, destination);
  return [
    ...checkCondition(condition, { typeOf }, conditionSetting({ receivedAt: ANY_TIME }, destination), way),
    ...clausesOf(condition).flatMap(({ of }) => checkPart(of, way, route, w, surroundings)),
  ];
}

function checkNames(route: RouteDefinition, write: Write, w: number): Problem[] {
  const earlier = route.writes.slice(0, w).map(({ as }) => as);
  const problems: Problem[] = [];
  if (earlier.includes(write.as))
    problems.push(error('name-taken', `Two writes are called “${write.as}”.`, jsonPointer(['writes', w, 'as'])));
  write.links?.forEach((link, l) => {
    if (!earlier.includes(link)) {
      problems.push(
        error(
          'unknown-write',
          `No earlier write is called “${link}”, so nothing can be linked to it.`,
          jsonPointer(['writes', w, 'links', l]),
        ),
      );
    }
  });
  return problems;
}

function checkFills(write: Write, w: number, destination: Destination): Problem[] {
  const problems: Problem[] = [];
  const fed = new Set<string>();
  write.fills.forEach((fill, f) => {
    const at = jsonPointer(['writes', w, 'fills', f, 'field']);
    const field = fieldOf(destination, write.record, fill.field);
    if (!field) problems.push(error('unknown-field', `A ${write.record} has no field “${fill.field}”.`, at));
    else if (field.kept)
      problems.push(error('kept-field', `${field.label} is kept by Hay Cart and cannot be fed.`, at));
    if (fed.has(fill.field)) problems.push(error('fed-twice', `The field “${fill.field}” is fed twice.`, at));
    fed.add(fill.field);
    if (field?.type === 'one-of')
      problems.push(...checkOptionTexts(fill.value, field, [...['writes', w, 'fills', f, 'value', 'parts']]));
  });
  for (const field of destination.fields) {
    if (field.record !== write.record || !field.required || field.kept || fed.has(field.key)) continue;
    problems.push(
      error(
        'required-unfed',
        `${field.label} is required on a ${write.record}, and nothing feeds it.`,
        jsonPointer(['writes', w, 'fills']),
      ),
    );
  }
  if (!fed.has('source') && write.record !== 'company') {
    problems.push(
      warning(
        'source-unfed',
        `The ${write.record} will not say where it came from: nothing feeds its source.`,
        jsonPointer(['writes', w, 'fills']),
      ),
    );
  }
  return problems;
}

function checkOptionTexts(
  value: Value,
  field: { label: string; options?: { key: string; label: string }[] },
  way: (string | number)[],
): Problem[] {
  const [only] = value.parts;
  if (value.parts.length !== 1 || !only || !('text' in only) || optionFor(field.options ?? [], only.text)) return [];
  return [error('unknown-option', `${field.label} has no option “${only.text}”.`, jsonPointer([...way, 0, 'text']))];
}

/** Whether problems stand in the way of publishing. */
export function hasErrors(problems: readonly Problem[]): boolean {
  return problems.some(({ severity }) => severity === 'error');
}
