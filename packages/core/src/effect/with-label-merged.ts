import type { DecisionTable, OutputType } from '../decision/decision-table';
import type { RouteDefinition } from '../definition/route-definition';
import type { EffectName } from './effect';
import { effectOf } from './registry';

/** The route after one tag, or list, took the place of another: its follow-ups and its tables name the one that stays. */
export function withLabelMerged(
  route: RouteDefinition,
  field: 'tags' | 'lists',
  from: string,
  into: string,
): RouteDefinition {
  const renamed = (of: EffectName, key: string) => (of === field && key === from ? into : key);
  const type = field === 'tags' ? 'tag' : 'list';
  return {
    ...route,
    ...(route.decisions ? { decisions: route.decisions.map((table) => withSaid(table, type, from, into)) } : {}),
    ...(route.followUps
      ? { followUps: route.followUps.map((one) => effectOf(one)?.adopt?.(one, renamed) ?? one) }
      : {}),
  };
}

function withSaid(table: DecisionTable, type: OutputType, from: string, into: string): DecisionTable {
  const outputs = new Set(table.outputs.filter((output) => output.type === type).map(({ name }) => name));
  if (!outputs.size) return table;
  const change = (then: Record<string, unknown>) =>
    Object.fromEntries(
      Object.entries(then).map(([name, said]) => [name, outputs.has(name) && said === from ? into : said]),
    );
  return {
    ...table,
    rows: table.rows.map((row) => ({ ...row, then: change(row.then) })),
    ...(table.otherwise ? { otherwise: change(table.otherwise) } : {}),
  };
}
