import { namedOwner, type OwnerRule } from '../../assignment/choose-owner';
import { effectOf } from '../../effect/registry';
import { fieldOf, type Destination } from '../../destination/destination';
import type { RecordKind } from '../../diff/record';
import { holdRuleOf } from '../../hold/registry';
import { jsonPointer } from '../../json';
import { error, type Problem } from '../../problem';
import { checkDecidedOwner, checkDecidedWays } from './check-output';
import type { RouteDefinition } from '../../definition/route-definition';

/** What is wrong with the owners that a route names, and with what its tables say of its writes. */
export function checkOwners(route: RouteDefinition, destination: Destination): Problem[] {
  return [
    ...route.writes.flatMap((write, w) => {
      const { owner, record } = write;
      const ways = checkDecidedWays(write, ['writes', w], route, w);
      if (!owner) return ways;
      return [
        ...ways,
        ...checkOwner(owner, record, ['writes', w, 'owner'], destination),
        ...checkDecidedOwner(owner, ['writes', w, 'owner'], route, w),
      ];
    }),
    ...(route.holds ?? []).flatMap((hold, h) => {
      const problems: Problem[] = [];
      holdRuleOf(hold)?.withOwners?.(hold, (rule, way) => {
        problems.push(...checkOwner(rule, 'contact', ['holds', h, ...way], destination));
        problems.push(...checkDecidedOwner(rule, ['holds', h, ...way], route, route.writes.length));
        return rule;
      });
      return problems;
    }),
    ...(route.followUps ?? []).flatMap((followUp, f) => {
      const named = effectOf(followUp)?.owner?.of(followUp);
      const record = route.writes.find(({ as }) => as === followUp.on)?.record ?? 'contact';
      if (!named) return [];
      const way = ['followUps', f, ...named.way];
      return [
        ...checkOwner(named.rule, record, way, destination),
        ...checkDecidedOwner(named.rule, way, route, route.writes.length),
      ];
    }),
  ];
}

function checkOwner(
  rule: OwnerRule,
  record: RecordKind,
  way: (string | number)[],
  destination: Destination,
): Problem[] {
  const named = namedOwner(rule);
  if (!named) return [];
  const at = [...way, ...('enteredBy' in rule ? ['otherwise'] : [])];
  const person = (key: string | undefined, name: string): Problem[] =>
    key === undefined || isOption(destination, record, 'owner', key)
      ? []
      : [error('unknown-person', `There is no person “${key}”.`, jsonPointer([...at, name]))];
  if ('person' in named) return [...person(named.person, 'person'), ...person(named.standIn, 'standIn')];
  const team = destination.teams?.[named.team]
    ? []
    : [error('unknown-team', `There is no team “${named.team}”.`, jsonPointer([...at, 'team']))];
  const shares = Object.keys(named.shares ?? {}).flatMap((key) => person(key, 'shares'));
  return [...team, ...shares, ...person(named.otherwise, 'otherwise')];
}

function isOption(destination: Destination, record: RecordKind, field: string, key: string): boolean {
  return (fieldOf(destination, record, field)?.options ?? []).some((option) => option.key === key && !option.retired);
}
