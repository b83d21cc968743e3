import type { DecidedOwner, OwnerRule } from '../../assignment/choose-owner';
import type { DecisionTable } from '../../decision/decision-table';
import { withOutputChanged } from '../../decision/edit-table';
import type { Destination } from '../../destination/destination';
import { effectOf } from '../../effect/registry';
import { holdRuleOf } from '../../hold/registry';
import type { DecisionOutput } from '../../decision/decision-table';
import type { RouteDefinition, Write } from '../../definition/route-definition';
import type { Part } from '../../value/value';
import { withParts } from './answers';

/** The route with one of its tables changed. */
export function withTable(
  route: RouteDefinition,
  name: string,
  change: (table: DecisionTable) => DecisionTable,
): RouteDefinition {
  return { ...route, decisions: (route.decisions ?? []).map((table) => (table.name === name ? change(table) : table)) };
}

/** The route with a table called otherwise, wherever it is named. */
export function withTableRenamed(route: RouteDefinition, from: string, to: string): RouteDefinition {
  const renamed = withTable(route, from, (table) => ({ ...table, name: to }));
  return withDecided(renamed, (part) => (part.decision === from ? { ...part, decision: to } : part));
}

/** The route with an output of a table changed, wherever it is named. */
export function withDecidedOutputChanged(
  route: RouteDefinition,
  name: string,
  at: number,
  output: DecisionOutput,
  destination: Destination,
): RouteDefinition {
  const before = route.decisions?.find((table) => table.name === name)?.outputs[at]?.name;
  const changed = withTable(route, name, (table) => withOutputChanged(table, at, output, destination));
  if (before === undefined || before === output.name) return changed;
  return withDecided(changed, (part) =>
    part.decision === name && part.output === before ? { ...part, output: output.name } : part,
  );
}

/** How often a route asks for what a table decides. */
export function usesOfTable(route: RouteDefinition, name: string): number {
  let uses = 0;
  withDecided(route, (part) => {
    if (part.decision === name) uses += 1;
    return part;
  });
  return uses;
}

/** Changes every part and every owner that takes what a table decides. */
function withDecided(route: RouteDefinition, change: (part: DecidedOwner) => DecidedOwner): RouteDefinition {
  const owner = (rule: OwnerRule): OwnerRule => {
    if ('decision' in rule) return change(rule);
    return 'enteredBy' in rule && rule.otherwise && 'decision' in rule.otherwise
      ? { ...rule, otherwise: change(rule.otherwise) }
      : rule;
  };
  const parts = withParts(route, (part: Part) => ('decision' in part ? change(part) : part));
  return {
    ...parts,
    writes: parts.writes.map((write) => ({
      ...write,
      ...(write.owner ? { owner: owner(write.owner) } : {}),
      ...(write.decided ? { decided: withWays(write.decided, change) } : {}),
    })),
    ...(parts.followUps
      ? {
          followUps: parts.followUps.map((followUp) => {
            const named = effectOf(followUp)?.owner?.of(followUp);
            return named ? effectOf(followUp)!.owner!.put(followUp, owner(named.rule)) : followUp;
          }),
        }
      : {}),
    ...(parts.holds ? { holds: parts.holds.map((hold) => holdRuleOf(hold)?.withOwners?.(hold, owner) ?? hold) } : {}),
  };
}

function withWays(
  { whenMatched, again }: NonNullable<Write['decided']>,
  change: (part: DecidedOwner) => DecidedOwner,
): NonNullable<Write['decided']> {
  return { ...(whenMatched ? { whenMatched: change(whenMatched) } : {}), ...(again ? { again: change(again) } : {}) };
}

/** The keys of the value sets that the tables of a route name. */
export function setsUsed({ decisions = [] }: Pick<RouteDefinition, 'decisions'>): Set<string> {
  const cells = decisions.flatMap(({ rows }) => rows.flatMap(({ when }) => when));
  return new Set(
    cells.flatMap((cell) => (cell && (cell.test === 'in-set' || cell.test === 'not-in-set') ? String(cell.value) : [])),
  );
}
