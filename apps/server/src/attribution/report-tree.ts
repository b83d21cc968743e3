import { ADDED, COUNTED, CREDITED, LAST_LEVEL, type Source, type SourceLeaf, type SourceNode } from '@haycart/core';
import type { SourcePart, SourceRow } from '@haycart/api';

export type SourceOf = Record<SourcePart, string>;

/** Sums of records by source and level (see `journeyStep`). */
export interface Sums extends Record<string, unknown> {
  /** Null for records without any touch. */
  source: number | null;
  level?: number;
  /** The value of what the first rows go by; absent when they go by channel. */
  splitValue?: string;
}

/** What the rows of a report go by, from the outside in. */
export type RowPart = 'splitValue' | SourcePart;

/** The path of records without any touch. */
const UNKNOWN: SourceOf = { channel: '', source: '', campaign: '', page: '' };
const FIGURES = [...ADDED, ...COUNTED, ...CREDITED];

/** Returns a leaf for each source of each value of a split: what its rows say, added up. */
export function leavesOf(
  rows: readonly Sums[],
  sources: ReadonlyMap<number | null, SourceOf>,
  by: readonly RowPart[],
): SourceLeaf[] {
  const own = new Map<string, Sums[]>();
  for (const row of rows) {
    const key = `${row.source} ${row.splitValue}`;
    const known = own.get(key);
    if (known) known.push(row);
    else own.set(key, [row]);
  }
  return [...own.values()].map((of) => leafOf(of, sources.get(of[0]!.source), by));
}

/** @param rows All of one source and one value of a split. */
function leafOf(rows: readonly Sums[], source: SourceOf = UNKNOWN, by: readonly RowPart[]): SourceLeaf {
  const sum = (key: string) => rows.reduce((all, row) => all + Number(row[key] ?? 0), 0);
  // A record that counts at a level counts at all that are less far apart. It has one split value.
  const atOnce = by[0] === 'splitValue' ? 1 : 0;
  const depths = (key: string) => {
    const counts = Array<number>(LAST_LEVEL + atOnce).fill(0);
    for (const row of rows)
      for (let depth = 0; depth < counts.length; depth += 1)
        if ((row.level ?? 0) >= LAST_LEVEL - Math.max(0, depth - atOnce)) counts[depth]! += Number(row[key] ?? 0);
    return counts;
  };
  return {
    path: pathOf(source, rows[0]!.splitValue, by),
    added: { submissions: sum('submissions') },
    counted: Object.fromEntries(COUNTED.map((key) => [key, depths(key)])),
    credited: { value: sum('value'), won: sum('won') },
  };
}

/** Returns a leaf for figures without records: costs, and views of forms. */
export function placedLeaf(
  { channel, source, campaign }: Pick<Source, 'channel' | 'source' | 'campaign'>,
  added: SourceLeaf['added'],
  by: readonly RowPart[],
): SourceLeaf {
  const path = pathOf({ channel, source, campaign: campaign ?? '', page: '' }, undefined, by);
  return { path, added, counted: {}, credited: {} };
}

/** Each node before those below it; those in which nothing stands are left out. */
export function rowsOf({ children }: SourceNode, by: readonly RowPart[], above: Partial<SourceRow> = {}): SourceRow[] {
  const part = by[Object.keys(above).length];
  if (part === undefined) return [];
  return children.flatMap((child) => {
    const own = { ...above, [part]: child.name };
    const below = rowsOf(child, by, own);
    return FIGURES.some((figure) => child.figures[figure] !== 0) ? [{ ...own, ...child.figures }, ...below] : below;
  });
}

function pathOf(source: SourceOf, splitValue: string | undefined, by: readonly RowPart[]): string[] {
  return by.map((part) => (part === 'splitValue' ? (splitValue ?? '') : source[part]));
}
