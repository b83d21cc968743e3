import { decidedOwner, type DecidedOwner, type OwnerRule } from '../../assignment/choose-owner';
import type { OutputType } from '../../decision/decision-table';
import { jsonPointer } from '../../json';
import { error, type Problem } from '../../problem';
import type { RouteDefinition, Write } from '../../definition/route-definition';
import type { Part } from '../../value/value';

type Way = (string | number)[];

/** What is wrong with a part that takes an output: the table, the output, or when it is asked for. */
export function checkOutputPart(
  { decision, output }: Extract<Part, { decision: string }>,
  way: Way,
  { decisions = [] }: Pick<RouteDefinition, 'decisions'>,
): Problem[] {
  const table = decisions.find(({ name }) => name === decision);
  if (!table) return [error('unknown-decision', `There is no table “${decision}”.`, jsonPointer([...way, 'decision']))];
  return table.outputs.some(({ name }) => name === output)
    ? []
    : [error('unknown-output', `The table “${decision}” has no output “${output}”.`, jsonPointer([...way, 'output']))];
}

/** Whether a table asks for a record that is written only after the write that needs what it decides. */
export function decidedTooEarly(
  { decision }: Extract<Part, { decision: string }>,
  route: Pick<RouteDefinition, 'decisions' | 'writes'>,
  w: number,
): string | null {
  const decisions = route.decisions ?? [];
  const at = decisions.findIndex(({ name }) => name === decision);
  const earlier = new Set(route.writes.slice(0, w).map(({ as }) => as));
  for (const { of, postcode } of decisions[at]?.inputs ?? []) {
    for (const part of [of, ...(postcode ? [postcode] : [])]) {
      if ('write' in part && !earlier.has(part.write)) return part.write;
      const before = 'decision' in part && decidedTooEarly(part, { ...route, decisions: decisions.slice(0, at) }, w);
      if (before) return before;
    }
  }
  return null;
}

/** What is wrong with an owner whom a table names. */
export function checkDecidedOwner(rule: OwnerRule, way: Way, route: RouteDefinition, w: number): Problem[] {
  const decided = decidedOwner(rule);
  if (!decided) return [];
  return checkDecidedChoice(decided, ['owner', 'person', 'team'], 'names nobody', way, route, w);
}

/** What is wrong with what a table says about how a write treats a known record, or a second enquiry. */
export function checkDecidedWays({ decided = {} }: Write, way: Way, route: RouteDefinition, w: number): Problem[] {
  const check = (key: 'whenMatched' | 'again', type: OutputType, words: string) =>
    decided[key] ? checkDecidedChoice(decided[key], [type], words, [...way, 'decided', key], route, w) : [];
  return [
    ...check('whenMatched', 'when-matched', 'does not say what happens to a known record'),
    ...check('again', 'again', 'does not say what a second enquiry does'),
  ];
}

function checkDecidedChoice(
  decided: DecidedOwner,
  types: readonly OutputType[],
  otherwise: string,
  way: Way,
  route: RouteDefinition,
  w: number,
): Problem[] {
  const missing = checkOutputPart(decided, way, route);
  if (missing.length) return missing;
  const table = route.decisions!.find(({ name }) => name === decided.decision)!;
  const { type } = table.outputs.find(({ name }) => name === decided.output)!;
  if (!types.includes(type))
    return [
      error(
        'output-does-not-fit',
        `${decided.output} of “${decided.decision}” ${otherwise}.`,
        jsonPointer([...way, 'output']),
      ),
    ];
  const late = decidedTooEarly(decided, route, w);
  return late === null ? [] : [tooEarly(decided.decision, late, way)];
}

export function tooEarly(decision: string, write: string, way: Way): Problem {
  return error(
    'decided-too-early',
    `“${decision}” looks at ${write}, which is written only afterwards. Use it further down, or take that column out.`,
    jsonPointer([...way, 'decision']),
  );
}
