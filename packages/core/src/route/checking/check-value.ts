import { factOf } from '../../decision/facts';
import { fieldOf } from '../../destination/destination';
import { jsonPointer } from '../../json';
import { finisherNamed } from '../../value/finishers/registry';
import { parseKey } from '../../payload/key';
import { error, warning, type Problem } from '../../problem';
import { VISIT_NAMES } from '../../source/visit';
import { listInWords } from '../../text';
import { answerKeys } from '../editing/answers';
import { type RouteDefinition } from '../../definition/route-definition';
import { VISIT_PART_NAMES_DERIVED, type Part, type Value } from '../../value/value';
import { shapeProblems } from '../editing/read-route';
import { checkOutputPart, decidedTooEarly, tooEarly } from './check-output';
import type { RouteSurroundings } from './surroundings';

/** What is wrong with a value of write `w`: its parts, and its finishers with their settings. */
export function checkValue(
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

const VISIT_PARTS: readonly string[] = [...VISIT_NAMES, ...VISIT_PART_NAMES_DERIVED];

/** What is wrong with a part: a name of something that is not there, or not before write `w`. */
export function checkPart(
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
  if ('decision' in part) {
    const missing = checkOutputPart(part, way, route);
    const late = missing.length ? null : decidedTooEarly(part, route, w);
    return late === null ? missing : [tooEarly(part.decision, late, way)];
  }
  if ('write' in part) {
    const source = route.writes.slice(0, w).find(({ as }) => as === part.write);
    if (!source)
      return [error('unknown-write', `No earlier write is called “${part.write}”.`, jsonPointer([...way, 'write']))];
    if (!fieldOf(surroundings.destination, source.record, part.field) && !factOf(source.record, part.field)) {
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
