import type { z } from '../../schema-library';
import { jsonPointer, type JsonValue } from '../../json';
import { payloadSize } from '../../payload/payload-size';
import { error, type Problem } from '../../problem';
import type { RouteDefinition } from '../../definition/route-definition';
import { routeShape } from './schema';

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

/** What is wrong with the shape of something, in words, with its place. */
export function shapeProblems(issue: z.core.$ZodIssue, before: (string | number)[]): Problem[] {
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
  if (way.length === 2 && way[0] === 'followUps')
    return 'A follow-up names its kind (do) and has the settings of that kind, with nothing else in it.';
  if (way.length === 2 && way[0] === 'holds')
    return 'A hold is {for: approval, by, byMail, when} or {for: confirmation, template, within, when}, with nothing else in it.';
  return 'A condition is one of {all}, {any}, {not} or {of, test, value}.';
}
