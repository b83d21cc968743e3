import type { z } from '../schema-library';
import { fieldOf, pipelineOf, recordWord, stageOf, type Destination } from '../destination/destination';
import { optionFor } from '../destination/field-value';
import { jsonPointer, type JsonValue } from '../json';
import { finisherNamed } from '../mapping/finishers/registry';
import { payloadSize } from '../payload/fields';
import { parseKey } from '../payload/key';
import { error, warning, type Problem } from '../problem';
import { listInWords } from '../text';
import { VISIT_NAMES } from '../source/visit';
import {
  VISIT_PART_NAMES_DERIVED,
  type Condition,
  type Part,
  type Place,
  type RouteDefinition,
  type Value,
  type Write,
} from './definition';
import { clausesOf } from '../condition/condition';
import { checkCondition } from '../condition/evaluate';
import { answerKeys } from './answers';
import { conditionSetting, partType } from './route-conditions';
import { checkMarks } from './check-marks';
import { notBuiltYet, valuesOf } from './not-built';
import { routeShape } from './schema';

/** What a route may name: the workspace's destination and its intakes, each with the field keys seen so far. */
export interface RouteSurroundings {
  destination: Destination;
  intakes: { key: string; name: string; fieldKeys?: ReadonlySet<string> }[];
}

/** A definition of the right shape, or what is wrong with its shape and where. */
export type ReadRoute = { ok: true; route: RouteDefinition } | { ok: false; problems: Problem[] };

/** The most levels of a definition: far more than people write, and few enough for every reader. */
const DEEPEST = 100;

function nests(definition: unknown): number {
  return typeof definition === 'object' && definition !== null ? payloadSize(definition as JsonValue).depth : 0;
}

/** Reads a definition: every unknown property and every wrong type is an error with its place. */
export function readRoute(definition: unknown): ReadRoute {
  if (nests(definition) > DEEPEST)
    return { ok: false, problems: [error('too-deep', `A route nests at most ${DEEPEST} levels deep.`, '')] };
  const result = routeShape.safeParse(definition);
  if (result.success) return { ok: true, route: result.data };
  return { ok: false, problems: result.error.issues.flatMap((issue) => shapeProblems(issue, [])) };
}

/**
 * Everything that is wrong with a route of the right shape: names that do not exist, required fields that nothing
 * feeds, and what is not built yet. Errors stand in the way of publishing; warnings do not.
 */
export function checkRoute(route: RouteDefinition, surroundings: RouteSurroundings): Problem[] {
  return [
    ...checkFrom(route, surroundings),
    ...(route.onlyWhen ? checkClauses(route.onlyWhen, ['onlyWhen'], route, 0, surroundings) : []),
    ...notBuiltYet(route),
    ...checkWrites(route, surroundings),
    ...checkMarks(route, surroundings.destination),
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

function checkMatch(write: Write, w: number): Problem[] {
  const key = { contact: 'email', company: 'domain', lead: 'email', deal: null }[write.record];
  return (write.match ?? []).flatMap(({ by }, m) => {
    const at = jsonPointer(['writes', w, 'match', m, 'by']);
    if ((by === 'email' || by === 'domain') && by !== key)
      return [error('match-does-not-fit', `A ${write.record} cannot be recognised by ${by}.`, at)];
    if (by === key && !write.fills.some(({ field }) => field === key)) {
      return [error('match-unfed', `Recognising by ${by} needs the field ${key}, which nothing feeds.`, at)];
    }
    return [];
  });
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

function checkPlace(write: Write, w: number, destination: Destination): Problem[] {
  const way = ['writes', w, 'place'];
  const placed = write.record === 'deal' || write.record === 'lead';
  if (!write.place) {
    return write.record === 'deal'
      ? [
          error(
            'no-place',
            `The ${recordWord(destination, 'deal')} has no place: choose a pipeline and a stage.`,
            jsonPointer(['writes', w]),
          ),
        ]
      : [];
  }
  if (!placed) return [error('place-does-not-fit', `A ${write.record} stands in no pipeline.`, jsonPointer(way))];
  return checkStage(write.place, write.record, destination, way);
}

function checkStage(
  place: Place,
  record: Write['record'],
  destination: Destination,
  way: (string | number)[],
): Problem[] {
  const pipelineKey = fixedText(place.pipeline);
  if (pipelineKey === null) return [];
  const pipeline = pipelineOf(destination, pipelineKey);
  if (!pipeline || pipeline.record !== record) {
    return [
      error(
        'unknown-pipeline',
        `There is no pipeline for ${record}s with the key “${pipelineKey}”.`,
        jsonPointer([...way, 'pipeline']),
      ),
    ];
  }
  const stageKey = fixedText(place.stage);
  if (stageKey === null || stageOf(pipeline, stageKey)) return [];
  const known = listInWords(
    pipeline.stages.map(({ key }) => key),
    'or',
  );
  return [
    error(
      'unknown-stage',
      `The pipeline ${pipeline.name} has no stage “${stageKey}”. Choose ${known}.`,
      jsonPointer([...way, 'stage']),
    ),
  ];
}

function checkValue(
  value: Value,
  way: (string | number)[],
  route: RouteDefinition,
  w: number,
  surroundings: RouteSurroundings,
): Problem[] {
  const problems: Problem[] = [];
  if (!value.parts.length)
    problems.push(
      error('no-part', 'Nothing is filled in: choose an answer or type a text.', jsonPointer([...way, 'parts'])),
    );
  value.parts.forEach((part, p) => problems.push(...checkPart(part, [...way, 'parts', p], route, w, surroundings)));
  value.finishers?.forEach((use, f) => {
    const finisher = finisherNamed(use.use);
    const at = [...way, 'finishers', f];
    if (!finisher) {
      problems.push(error('unknown-finisher', `There is no finisher “${use.use}”.`, jsonPointer([...at, 'use'])));
      return;
    }
    const parameters = finisher.parameters.safeParse(use.with ?? {});
    if (!parameters.success)
      problems.push(...parameters.error.issues.flatMap((issue) => shapeProblems(issue, [...at, 'with'])));
  });
  return problems;
}

/** Whether a test makes sense does not depend on the time. */
const ANY_TIME = '2026-01-01T00:00:00.000Z';

const VISIT_PARTS: readonly string[] = [...VISIT_NAMES, ...VISIT_PART_NAMES_DERIVED];

function checkPart(
  part: Part,
  way: (string | number)[],
  route: RouteDefinition,
  w: number,
  surroundings: RouteSurroundings,
): Problem[] {
  if ('answer' in part) {
    const at = jsonPointer([...way, 'answer']);
    const keys = answerKeys(part);
    const wrong = keys.filter((key) => !parseKey(key));
    if (wrong.length) return wrong.map((key) => error('not-a-key', `“${key}” is not the key of an answer.`, at));
    const intakes = surroundings.intakes.filter(({ key }) => route.from.includes(key));
    const unseen = intakes.filter(({ fieldKeys }) => fieldKeys && !keys.some((key) => holdsKey(fieldKeys, key)));
    if (!intakes.length || unseen.length < intakes.length) return [];
    return [
      warning(
        'unseen-answer',
        `No submission of ${listInWords(unseen.map(({ name }) => name))} had an answer “${part.answer}” yet.`,
        at,
      ),
    ];
  }
  if ('visit' in part && !VISIT_PARTS.includes(part.visit)) {
    return [
      error(
        'unknown-visit-part',
        `A visit has no “${part.visit}”. It has ${listInWords(VISIT_PARTS)}.`,
        jsonPointer([...way, 'visit']),
      ),
    ];
  }
  if ('write' in part) {
    const source = route.writes.slice(0, w).find(({ as }) => as === part.write);
    if (!source)
      return [error('unknown-write', `No earlier write is called “${part.write}”.`, jsonPointer([...way, 'write']))];
    if (!fieldOf(surroundings.destination, source.record, part.field)) {
      return [
        error('unknown-field', `A ${source.record} has no field “${part.field}”.`, jsonPointer([...way, 'field'])),
      ];
    }
  }
  return [];
}

/** Whether a key was seen itself, or as the object or list around keys that were seen. */
function holdsKey(keys: ReadonlySet<string>, key: string): boolean {
  if (keys.has(key)) return true;
  for (const seen of keys) if (seen.startsWith(`${key}.`) || seen.startsWith(`${key}[`)) return true;
  return false;
}

/** The text of a value that is nothing but fixed texts, or `null`. */
export function fixedText(value: Value): string | null {
  return value.parts.every((part) => 'text' in part)
    ? value.parts.map((part) => (part as { text: string }).text).join(value.joinWith ?? '')
    : null;
}

function shapeProblems(issue: z.core.$ZodIssue, before: (string | number)[]): Problem[] {
  const way = [...before, ...(issue.path as (string | number)[])];
  switch (issue.code) {
    case 'unrecognized_keys':
      return issue.keys.map((key) =>
        error('unknown-property', `There is no property “${key}” here.`, jsonPointer([...way, key])),
      );
    case 'invalid_union':
      return [error('wrong-shape', unionText(way), jsonPointer(way))];
    default: {
      const missing = issue.code === 'invalid_type' && /received undefined/.test(issue.message);
      return [
        error(
          missing ? 'missing' : 'wrong-value',
          `${missing ? 'Something is missing here' : 'This does not fit'}: ${issue.message}.`,
          jsonPointer(way),
        ),
      ];
    }
  }
}

function unionText(way: (string | number)[]): string {
  if (way.includes('parts'))
    return 'A part is one of {answer}, {visit}, {text}, {decision, output} or {write, field}, with nothing else in it.';
  if (way.includes('match'))
    return 'A match rule is {by: email, phone, domain, external-id or name}, or {by: likeness, accept, ask}.';
  return 'A condition is one of {all}, {any}, {not} or {of, test, value}.';
}

/** Whether problems stand in the way of publishing. */
export function hasErrors(problems: readonly Problem[]): boolean {
  return problems.some(({ severity }) => severity === 'error');
}
