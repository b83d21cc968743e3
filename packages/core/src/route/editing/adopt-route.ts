import type { OwnerRule } from '../../assignment/choose-owner';
import { fieldOf, type Destination } from '../../destination/destination';
import type { RecordKind } from '../../diff/record';
import type { EffectName } from '../../effect/effect';
import { isNamed, type DecisionTable, type OutputType } from '../../decision/decision-table';
import { outputChoices } from '../../decision/notation/output-choices';
import { effectOf } from '../../effect/registry';
import { holdRuleOf } from '../../hold/registry';
import { foldSegment } from '../../payload/key';
import { mapCondition } from '../../condition/condition';
import { fixedText } from '../../definition/fixed-text';
import type { FollowUp, Hold, Place, RouteDefinition, Write } from '../../definition/route-definition';
import type { Part, Value } from '../../value/value';

/** A name of a route from elsewhere, and what it is called here. */
export interface AdoptedName {
  what: 'field' | 'pipeline' | 'stage' | 'tag' | 'list' | 'person' | 'team' | 'channel' | 'template' | 'file';
  from: string;
  to: string;
}

/**
 * A route from elsewhere in this workspace’s names: whatever it names that is not here, but something is that is written or
 * labelled the same but for capitals, spaces and punctuation, gets that name. What is left over, `checkRoute` tells.
 */
export function adoptRoute(
  route: RouteDefinition,
  destination: Destination,
): { route: RouteDefinition; adopted: AdoptedName[] } {
  const adopted = new Map<string, AdoptedName>();
  const adopt = (what: AdoptedName['what'], from: string, names: readonly Named[]): string => {
    if (names.some(({ key }) => key === from)) return from;
    const folded = foldSegment(from);
    const same = names.find(({ key, name }) => [key, name].some((one) => foldSegment(one) === folded));
    if (!same || !folded) return from;
    adopted.set(`${what} ${from}`, { what, from, to: same.key });
    return same.key;
  };
  const kinds = new Map(route.writes.map(({ as, record }) => [as, record]));
  const field = (record: RecordKind, key: string) =>
    adopt('field', key, destination.fields.filter((one) => one.record === record).map(named));
  const marks = (record: RecordKind, key: 'owner' | 'tags' | 'lists') =>
    (fieldOf(destination, record, key)?.options ?? []).map((option) => ({ key: option.key, name: option.label }));
  const part = (one: Part): Part => {
    const record = 'write' in one ? kinds.get(one.write) : undefined;
    return 'write' in one && record ? { ...one, field: field(record, one.field) } : one;
  };
  const value = (one: Value): Value => ({ ...one, parts: one.parts.map(part) });
  const teams = Object.entries(destination.teams ?? {}).map(([key, { name }]) => ({ key, name }));
  const owner = (record: RecordKind, rule: OwnerRule): OwnerRule => {
    const person = (key: string) => adopt('person', key, marks(record, 'owner'));
    if ('person' in rule)
      return { ...rule, person: person(rule.person), ...(rule.standIn ? { standIn: person(rule.standIn) } : {}) };
    if (!('team' in rule)) return rule;
    return {
      ...rule,
      team: adopt('team', rule.team, teams),
      ...(rule.shares
        ? { shares: Object.fromEntries(Object.entries(rule.shares).map(([key, share]) => [person(key), share])) }
        : {}),
      ...(rule.otherwise ? { otherwise: person(rule.otherwise) } : {}),
    };
  };
  const followUp = (one: FollowUp): FollowUp => {
    const record = one.on === undefined ? undefined : kinds.get(one.on);
    const kind = effectOf(one);
    if (!kind) return one;
    const valued = kind.withValues(one, value);
    const named = kind.owner?.of(valued);
    const owned = named ? kind.owner!.put(valued, owner(record ?? 'contact', named.rule)) : valued;
    return kind.adopt?.(owned, (what, key) => adoptedName(what, key, record)) ?? owned;
  };
  const adoptedName = (what: EffectName, key: string, record: RecordKind | undefined): string => {
    if (what === 'channel') return adopt('channel', key, destination.channels ?? []);
    if (what === 'team') return adopt('team', key, teams);
    if (what === 'file') return adopt('file', key, destination.files ?? []);
    if (what === 'template') return adopt('template', key, destination.templates ?? []);
    if (!record) return key;
    if (what === 'field') return field(record, key);
    return adopt(what === 'tags' ? 'tag' : 'list', key, marks(record, what));
  };
  const place = (one: Place, record: RecordKind): Place => {
    const pipelines = destination.pipelines.filter((pipeline) => pipeline.record === record);
    const pipeline = withFixed(value(one.pipeline), (key) => adopt('pipeline', key, pipelines));
    const stages = pipelines.find(({ key }) => fixedText(pipeline) === key)?.stages ?? [];
    return { ...one, pipeline, stage: withFixed(value(one.stage), (key) => adopt('stage', key, stages)) };
  };
  const hold = (one: Hold): Hold => {
    const rule = holdRuleOf(one);
    const adopted = one.when ? { ...one, when: mapCondition(one.when, part) } : one;
    const owned = rule?.withOwners?.(adopted, (asked) => owner('contact', asked)) ?? adopted;
    return rule?.adopt?.(owned, (what, key) => adoptedName(what, key, undefined)) ?? owned;
  };
  const decision = (table: DecisionTable): DecisionTable => {
    const then = (said: Record<string, unknown>) =>
      Object.fromEntries(
        Object.entries(said).map(([name, one]) => {
          const type = table.outputs.find((output) => output.name === name)?.type;
          return [name, type ? adoptOutput(one, type) : one];
        }),
      );
    return {
      ...table,
      inputs: table.inputs.map((input) => ({ ...input, of: part(input.of) })),
      rows: table.rows.map((row) => ({ ...row, then: then(row.then) })),
      ...(table.otherwise ? { otherwise: then(table.otherwise) } : {}),
    };
  };
  const adoptOutput = (said: unknown, type: OutputType): unknown => {
    if (type === 'owner') return said && typeof said === 'object' ? owner('contact', said as OwnerRule) : said;
    if (!isNamed(type) || typeof said !== 'string') return said;
    return adopt(type, said, outputChoices(type, destination).map(named));
  };
  const write = (one: Write): Write => ({
    ...one,
    ...(one.when ? { when: mapCondition(one.when, part) } : {}),
    fills: one.fills.map((fill) => ({ ...fill, field: field(one.record, fill.field), value: value(fill.value) })),
    ...(one.place ? { place: place(one.place, one.record) } : {}),
    ...(one.owner ? { owner: owner(one.record, one.owner) } : {}),
  });
  return {
    route: {
      ...route,
      ...(route.onlyWhen ? { onlyWhen: mapCondition(route.onlyWhen, part) } : {}),
      ...(route.decisions ? { decisions: route.decisions.map(decision) } : {}),
      writes: route.writes.map(write),
      ...(route.followUps ? { followUps: route.followUps.map(followUp) } : {}),
      ...(route.holds ? { holds: route.holds.map(hold) } : {}),
    },
    adopted: [...adopted.values()],
  };
}

interface Named {
  key: string;
  name: string;
}

function named({ key, label }: { key: string; label: string }): Named {
  return { key, name: label };
}

function withFixed(value: Value, change: (key: string) => string): Value {
  const key = fixedText(value);
  return key === null ? value : { ...value, parts: [{ text: change(key) }] };
}
