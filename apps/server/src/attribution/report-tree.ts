import { ADDED, COUNTED, CREDITED, type Source, type SourceLeaf, type SourceNode } from '@haycart/core';
import type { SourcePart, SourceRow } from '@haycart/api';

/** The level of the last touch of all: each journey has one. */
export const LAST = 5;

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

export function leafOf(row: Sums, source: SourceOf = UNKNOWN, by: readonly RowPart[]): SourceLeaf {
  const number = (key: string) => Number(row[key] ?? 0);
  // A record that counts at a level counts at all that are less far apart. It has one split value.
  const atOnce = by[0] === 'splitValue' ? 1 : 0;
  const depths = (count: number) =>
    Array.from({ length: LAST + atOnce }, (_, depth) =>
      (row.level ?? 0) >= LAST - Math.max(0, depth - atOnce) ? count : 0,
    );
  return {
    path: pathOf(source, row.splitValue, by),
    added: { submissions: number('submissions') },
    counted: Object.fromEntries(COUNTED.flatMap((key) => (row[key] ? [[key, depths(number(key))]] : []))),
    credited: { value: number('value'), won: number('won') },
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
