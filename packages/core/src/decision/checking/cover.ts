/** Sets of groups, a bit each. */
export type Bits = Uint32Array;

/** For each column the groups that a row takes for sure, and those that it may take; `null` where it takes all. */
export interface RowBox {
  row: number;
  sure: readonly (Bits | null)[];
  may: readonly (Bits | null)[];
}

/** The groups of each column that are looked at. */
export type Box = readonly Bits[];

/**
 * Whether rows take everything in a box. `gap`: the box within it that no row may take. `unsure`: what is left may be taken or
 * not, by tests that nothing can be said of. `too-much`: it was not worked out within the steps allowed.
 */
export type Covered =
  { is: 'covered'; by: ReadonlySet<number> } | { is: 'gap'; box: Box } | { is: 'unsure' } | { is: 'too-much' };

/** How many boxes may be looked at, for one table. */
export class Steps {
  constructor(public left: number) {}
}

/**
 * Looks for something in a box that none of the rows takes. The box is split by the row that comes nearest to taking all of
 * it, into what that row takes and the rest, until a row takes a part whole or no row reaches it.
 */
export function findUncovered(rows: readonly RowBox[], box: Box, steps: Steps): Covered {
  const by = new Set<number>();
  const found = search(rows, box, by, steps);
  return found ?? { is: 'covered', by };
}

function search(
  rows: readonly RowBox[],
  box: Box,
  by: Set<number>,
  steps: Steps,
): Exclude<Covered, { is: 'covered' }> | null {
  steps.left -= 1;
  if (steps.left < 0) return { is: 'too-much' };
  const near = rows.filter(({ may }) => may.every((bits, column) => !bits || meet(bits, box[column]!)));
  if (!near.length) return { is: 'gap', box };
  const split = nearest(near, box);
  if (split === 'unsure') return { is: 'unsure' };
  if (split.column === null) {
    by.add(split.row.row);
    return null;
  }
  const { column, bits } = split;
  let left: Exclude<Covered, { is: 'covered' }> | null = null;
  for (const part of [without(box[column]!, bits), common(box[column]!, bits)]) {
    const found = search(near, box.with(column, part), by, steps);
    if (found?.is === 'gap' || found?.is === 'too-much') return found;
    left ??= found;
  }
  return left;
}

/** The row that takes the box, or comes nearest, leaving the least of a column, and by which column to split then. */
function nearest(
  rows: readonly RowBox[],
  box: Box,
): { row: RowBox; column: null } | { row: RowBox; column: number; bits: Bits } | 'unsure' {
  let best: { row: RowBox; column: number; bits: Bits } | null = null;
  let fewest = Infinity;
  let least = Infinity;
  for (const row of rows) {
    let partial = 0;
    let first: { column: number; bits: Bits } | null = null;
    let unsure = false;
    for (let column = 0; column < box.length; column += 1) {
      const sure = row.sure[column];
      if (!sure || isWithin(box[column]!, sure)) continue;
      partial += 1;
      const bits = meet(sure, box[column]!) ? sure : row.may[column]!;
      // What is taken perhaps, all of it, cannot be split further.
      if (isWithin(box[column]!, bits)) unsure = true;
      else first ??= { column, bits };
    }
    if (partial === 0) return { row, column: null };
    const weight = partial + (unsure ? box.length : 0);
    if (!first || weight > fewest) continue;
    const left = countWithout(box[first.column]!, first.bits);
    if (weight < fewest || left < least) {
      fewest = weight;
      least = left;
      best = { row, ...first };
    }
  }
  return best ?? 'unsure';
}

export function meet(one: Bits, other: Bits): boolean {
  for (let word = 0; word < one.length; word += 1) if (one[word]! & other[word]!) return true;
  return false;
}

/** Whether all of the first is in the second. */
export function isWithin(one: Bits, other: Bits): boolean {
  for (let word = 0; word < one.length; word += 1) if (one[word]! & ~other[word]!) return false;
  return true;
}

export function common(one: Bits, other: Bits): Bits {
  return one.map((word, index) => word & other[index]!);
}

function without(one: Bits, other: Bits): Bits {
  return one.map((word, index) => word & ~other[index]!);
}

/** How many of the first are not in the second. */
function countWithout(one: Bits, other: Bits): number {
  let count = 0;
  for (let word = 0; word < one.length; word += 1)
    for (let left = one[word]! & ~other[word]!; left; left &= left - 1) count += 1;
  return count;
}

/** A set of as many groups, of which those are in that fit. */
export function bitsOf(count: number, fits: (group: number) => boolean): Bits {
  const bits = new Uint32Array(Math.ceil(count / 32));
  for (let group = 0; group < count; group += 1) if (fits(group)) bits[group >>> 5]! |= 1 << (group & 31);
  return bits;
}

/** The first group of a set. */
export function firstOf(bits: Bits): number {
  for (let word = 0; word < bits.length; word += 1)
    if (bits[word]) return word * 32 + (31 - Math.clz32(bits[word]! & -bits[word]!));
  return -1;
}
