import { apportion } from './apportion';

/** Figures that are sums: views of forms, submissions, and what campaigns cost in minor units. */
export const ADDED = ['views', 'submissions', 'cost'] as const;
/** Counts of records, and the days from begun to won of all won deals together. A record with several sources counts once in each of them. */
export const COUNTED = ['contacts', 'qualified', 'deals', 'wonDeals', 'wonDays'] as const;
/** Amounts that are shared among touches, in minor units. */
export const CREDITED = ['value', 'won'] as const;
export type Figure = (typeof ADDED)[number] | (typeof COUNTED)[number] | (typeof CREDITED)[number];
export type Figures = Record<Figure, number>;

/** The figures of one source, at the deepest level of the tree. */
export interface SourceLeaf {
  /** From the channel on; `''` where nothing was said. */
  path: readonly string[];
  added: Partial<Record<(typeof ADDED)[number], number>>;
  /** How many records count here for the whole, for the first part of the path, and so on: in each at one leaf only. */
  counted: Partial<Record<(typeof COUNTED)[number], readonly number[]>>;
  /** Exact shares, before they are rounded. */
  credited: Partial<Record<(typeof CREDITED)[number], number>>;
}

/** One row of the tree with the rows inside it. */
export interface SourceNode {
  name: string;
  figures: Figures;
  children: SourceNode[];
}

/**
 * Adds up leaves to the tree of channel, source, campaign, page. What is credited is rounded so that the parts of each node
 * add up to it, and those of the whole to the total, to the last minor unit.
 *
 * @param totals What is shared out as a whole.
 */
export function creditTree(
  leaves: readonly SourceLeaf[],
  totals: Readonly<Record<(typeof CREDITED)[number], number>>,
): SourceNode {
  return node('', leaves, 0, totals);
}

function node(
  name: string,
  leaves: readonly SourceLeaf[],
  depth: number,
  credited: Readonly<Record<(typeof CREDITED)[number], number>>,
): SourceNode {
  const below = new Map<string, SourceLeaf[]>();
  for (const leaf of leaves) {
    const next = leaf.path[depth];
    if (next === undefined) continue;
    const known = below.get(next);
    if (known) known.push(leaf);
    else below.set(next, [leaf]);
  }
  // In one order, so that equals are rounded alike whenever they are asked for.
  const named = [...below].sort(([one], [other]) => (one < other ? -1 : 1));
  const groups = named.map(([, group]) => group);
  const parts = CREDITED.map((figure) =>
    apportion(
      credited[figure],
      groups.map((group) => sum(group, (leaf) => leaf.credited[figure])),
    ),
  );
  const children = named.map(([child, group], index) =>
    node(child, group, depth + 1, {
      ...credited,
      ...Object.fromEntries(CREDITED.map((figure, at) => [figure, parts[at]![index]!])),
    }),
  );
  const figures = {
    ...Object.fromEntries(ADDED.map((figure) => [figure, sum(leaves, (leaf) => leaf.added[figure])])),
    ...Object.fromEntries(COUNTED.map((figure) => [figure, sum(leaves, (leaf) => leaf.counted[figure]?.[depth])])),
    ...credited,
  } as Figures;
  return { name, figures, children: children.sort(byWorth) };
}

/** The days from begun to won of a won deal, on average, with one decimal; null when none was won. */
export function daysToWon({ wonDays, wonDeals }: Pick<Figures, 'wonDays' | 'wonDeals'>): number | null {
  return wonDeals ? Math.round((wonDays / wonDeals) * 10) / 10 : null;
}

function sum(leaves: readonly SourceLeaf[], of: (leaf: SourceLeaf) => number | undefined): number {
  return leaves.reduce((whole, leaf) => whole + (of(leaf) ?? 0), 0);
}

/** What brought most first. */
function byWorth({ figures: one, name }: SourceNode, { figures: other, name: otherName }: SourceNode): number {
  return (
    other.won - one.won || other.value - one.value || other.submissions - one.submissions || (name < otherName ? -1 : 1)
  );
}
