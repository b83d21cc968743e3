import type { Destination } from '../../destination/destination';
import { sameJson, type JsonValue } from '../../json';
import { listInWords } from '../../text';
import type { Fill, RouteDefinition, Write } from '../../definition/route-definition';
import { namedAfter } from '../telling/what-it-does';
import {
  conditionInWords,
  describeRoute,
  effectsInWords,
  holdsInWords,
  fieldLabel,
  placingInWords,
  type RouteNames,
} from '../telling/describe';

/** What is different between two versions of a route, told in sentences; empty when nothing is. */
export function routeChanges(before: RouteDefinition, after: RouteDefinition, names: RouteNames): string[] {
  const changes: string[] = [];
  if (before.name !== after.name) changes.push(`It is called “${after.name}” instead of “${before.name}”.`);
  if (!same(before.from, after.from))
    changes.push(
      `It takes from ${describeRoute(after, names).takesFrom} instead of ${describeRoute(before, names).takesFrom}.`,
    );
  if (!same(before.onlyWhen, after.onlyWhen))
    changes.push(
      after.onlyWhen
        ? `It takes only when ${conditionInWords(after.onlyWhen, after, names.destination)}.`
        : 'It takes everything that arrives, without a condition.',
    );
  for (const write of before.writes) {
    if (!after.writes.some(({ as }) => as === write.as))
      changes.push(`It writes no ${write.record} “${write.as}” any more.`);
  }
  for (const write of after.writes) {
    const known = before.writes.find(({ as }) => as === write.as);
    if (!known) changes.push(`It also writes a ${write.record} “${write.as}”.`);
    else changes.push(...writeChanges(known, write, names.destination), ...nameChanges(before, after, write, names));
  }
  changes.push(...holdChanges(before, after, names), ...followUpChanges(before, after, names));
  return changes;
}

function holdChanges(before: RouteDefinition, after: RouteDefinition, { destination }: RouteNames): string[] {
  const [was, is] = [holdsInWords(before, destination), holdsInWords(after, destination)];
  return [
    ...is.filter((one) => !was.includes(one)).map((one) => `Hold added: ${one}.`),
    ...was.filter((one) => !is.includes(one)).map((one) => `Hold removed: ${one}.`),
  ];
}

function followUpChanges(before: RouteDefinition, after: RouteDefinition, { destination }: RouteNames): string[] {
  if (same(before.followUps, after.followUps)) return [];
  const [was, is] = [effectsInWords(before, destination), effectsInWords(after, destination)];
  const changes = [
    ...is.filter((one) => !was.includes(one)).map((one) => `Follow-up added: ${one}.`),
    ...was.filter((one) => !is.includes(one)).map((one) => `Follow-up removed: ${one}.`),
  ];
  return changes.length ? changes : ['A follow-up says something else, or comes in another order.'];
}

function nameChanges(
  before: RouteDefinition,
  after: RouteDefinition,
  write: Write,
  { destination }: RouteNames,
): string[] {
  const known = before.writes.find(({ as }) => as === write.as)!;
  const [was, is] = [namedAfter(known, before, destination), namedAfter(write, after, destination)];
  return was && is && was !== is ? [`The ${write.record}’s name is ${is} (before: ${was}).`] : [];
}

function writeChanges(before: Write, after: Write, destination: Destination): string[] {
  const changes: string[] = [];
  const label = (fill: Fill) => fieldLabel(destination, after.record, fill.field);
  const added = after.fills.filter(({ field }) => !before.fills.some((fill) => fill.field === field));
  const removed = before.fills.filter(({ field }) => !after.fills.some((fill) => fill.field === field));
  const changed = after.fills.filter((fill) =>
    before.fills.some((known) => known.field === fill.field && !same(known, fill)),
  );
  if (added.length)
    changes.push(`The ${after.record}’s ${listInWords(added.map(label))} ${added.length === 1 ? 'is' : 'are'} fed.`);
  if (removed.length)
    changes.push(
      `The ${after.record}’s ${listInWords(removed.map(label))} ${removed.length === 1 ? 'is' : 'are'} fed no more.`,
    );
  if (changed.length)
    changes.push(
      `The ${after.record}’s ${listInWords(changed.map(label))} ${changed.length === 1 ? 'is' : 'are'} fed in another way.`,
    );
  if (!same(recognising(before), recognising(after))) changes.push(`The ${after.record} is recognised in another way.`);
  if (!same(before.when, after.when)) changes.push(`The ${after.record} is written under another condition.`);
  if (!same(before.links, after.links)) changes.push(`The ${after.record} is linked in another way.`);
  if (!same(before.place, after.place))
    changes.push(
      `The ${after.record} is placed otherwise: ${placingInWords(after, destination)} (before: ${placingInWords(before, destination)}).`,
    );
  if (!same(before.decided?.again, after.decided?.again))
    changes.push(`What a second enquiry does to the ${after.record} is decided in another way.`);
  if (!same(before.owner, after.owner)) changes.push(`The ${after.record} gets its owner in another way.`);
  return changes;
}

function recognising({ match, whenMatched, whenSeveral, whenNone, decided }: Write): object {
  return { match, whenMatched, whenSeveral, whenNone, decided: decided?.whenMatched };
}

function same(a: unknown, b: unknown): boolean {
  return sameJson(
    JSON.parse(JSON.stringify(a ?? null)) as JsonValue,
    JSON.parse(JSON.stringify(b ?? null)) as JsonValue,
  );
}
