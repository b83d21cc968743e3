import { sameJson, type JsonValue } from '../../json';
import type { DecisionTable } from '../../decision/decision-table';
import type { RouteDefinition, Write } from '../../definition/route-definition';
import { mergedRows, sameColumns } from './merge-tables';

/** Two people's changes of one draft, brought together. */
export interface MergedDrafts {
  draft: RouteDefinition;
  /** What both changed, each in another way, in words; there mine stands. */
  clashes: string[];
}

type Things = Record<string, unknown>;

/**
 * Brings together two drafts that were made of one: what only one of the two changed is taken from them, field by field.
 * Where both changed the same, mine stands, and is told.
 */
export function mergeDrafts(base: RouteDefinition, mine: RouteDefinition, theirs: RouteDefinition): MergedDrafts {
  const clashes: string[] = [];
  const rest = merged(base, mine, theirs, ['writes', 'decisions'], 'The route’s', clashes);
  const decisions = mergedTables(base, mine, theirs, clashes);
  const writes = mergedList(base.writes, mine.writes, theirs.writes, ({ as }) => as, 'what is written as', clashes).map(
    (as) => mergedWrite(as, base, mine, theirs, clashes),
  );
  return { draft: { ...rest, ...(decisions.length ? { decisions } : {}), writes }, clashes };
}

function mergedWrite(
  as: string,
  base: RouteDefinition,
  mine: RouteDefinition,
  theirs: RouteDefinition,
  clashes: string[],
): Write {
  const [was, own, other] = [base, mine, theirs].map(({ writes }) => writes.find((write) => write.as === as));
  if (!own || !other) return (own ?? other)!;
  const known = was ?? { ...own, fills: [] };
  const rest = merged(known, own, other, ['fills'], `The ${own.record}’s`, clashes);
  const fillOf = (write: Write, field: string) => write.fills.find((fill) => fill.field === field);
  const fields = mergedList(known.fills, own.fills, other.fills, ({ field }) => field, 'the field', clashes);
  const fills = fields.map((field) => {
    const [before, one, two] = [fillOf(known, field), fillOf(own, field), fillOf(other, field)];
    if (!one || !two) return (one ?? two)!;
    return chosen(before, one, two, `The mapping of ${field}`, clashes);
  });
  return { ...rest, fills };
}

/** Tables by their names; rows of one that both changed are brought together where its columns are the same. */
function mergedTables(
  base: RouteDefinition,
  mine: RouteDefinition,
  theirs: RouteDefinition,
  clashes: string[],
): DecisionTable[] {
  const [was, own, other] = [base, mine, theirs].map(({ decisions = [] }) => decisions);
  const names = mergedList(was!, own!, other!, ({ name }) => name, 'the table', clashes);
  const find = (tables: readonly DecisionTable[], name: string) => tables.find((table) => table.name === name);
  return names.map((name) => {
    const [before, one, two] = [find(was!, name), find(own!, name), find(other!, name)];
    if (!one || !two) return (one ?? two)!;
    if (!before || !sameColumns(before, one) || !sameColumns(before, two))
      return chosen(before, one, two, `The table ${name}`, clashes);
    const rest = merged(before, one, two, ['rows'], `The table ${name}’s`, clashes);
    return { ...rest, rows: mergedRows(name, before.rows, one.rows, two.rows, clashes) };
  });
}

/** Every property but some, each from whoever changed it. */
function merged<T extends object>(
  base: T,
  mine: T,
  theirs: T,
  without: readonly (keyof T)[],
  whose: string,
  clashes: string[],
): T {
  const result: Things = {};
  const [was, own, other] = [base, mine, theirs] as Things[];
  for (const key of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
    if (without.includes(key as keyof T)) continue;
    const value = chosen(was![key], own![key], other![key], `${whose} ${key}`, clashes);
    if (value !== undefined) result[key] = value;
  }
  return result as T;
}

function chosen<T>(was: T | undefined, own: T, other: T, what: string, clashes: string[]): T {
  if (same(own, other) || same(other, was)) return own;
  if (same(own, was)) return other;
  clashes.push(`${what} was changed by both; yours is kept.`);
  return own;
}

/** The names in a list that two changed: in their order, with mine at the end, without what one of them took away. */
function mergedList<T>(
  base: readonly T[],
  mine: readonly T[],
  theirs: readonly T[],
  nameOf: (thing: T) => string,
  what: string,
  clashes: string[],
): string[] {
  const find = (list: readonly T[], name: string) => list.find((thing) => nameOf(thing) === name);
  const names = [...new Set([...theirs, ...mine].map(nameOf))];
  return names.filter((name) => {
    const [was, own, other] = [find(base, name), find(mine, name), find(theirs, name)];
    if (was === undefined || (own !== undefined && other !== undefined)) return true;
    // One of the two took it away: it stays only where the other changed it meanwhile.
    const kept = own ?? other;
    if (same(kept, was)) return false;
    clashes.push(`One took ${what} ${name} away while the other changed it; it stays.`);
    return true;
  });
}

function same(a: unknown, b: unknown): boolean {
  const plain = (value: unknown) => JSON.parse(JSON.stringify(value ?? null)) as JsonValue;
  return sameJson(plain(a), plain(b));
}
