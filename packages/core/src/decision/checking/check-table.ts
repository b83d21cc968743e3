import type { Destination } from '../../destination/destination';
import { comparedCell, goesByTime } from '../cell';
import { columnsOf, type Column, type TableAround } from '../column';
import { cellSetting } from '../decide';
import type { DecisionTable } from '../decision-table';
import { wrongOutput } from '../output-problem';
import { capitalised } from '../../text';
import {
  bitsOf,
  common,
  findUncovered,
  firstOf,
  isWithin,
  meet,
  Steps,
  type Bits,
  type Box,
  type RowBox,
} from './cover';
import { takenBy, valueGroups, type CheckedCell, type Taken, type ValueGroup } from './values';

/** What one column holds in an example. */
export interface ExampleValue {
  column: number;
  words: string;
}

/** What is found in one row; a row that nothing is wrong with is not listed. */
export interface RowFinding {
  row: number;
  /** The rows before it that take every case of it. */
  takenBefore?: number[];
  /** Columns whose cells can never be met. */
  never?: number[];
  /** Columns whose cells cannot be read, with why; those of outputs are counted after those of inputs. */
  unreadable?: { column: number; text: string }[];
}

/** Two rows that both fit a case and say different things; neither has all the cases of the other. */
export interface Overlap {
  /** The earlier one, which decides. */
  rows: [number, number];
  example: ExampleValue[];
}

/** What the check of a table found, exact over all values that its columns can hold. */
export interface TableCheck {
  rows: RowFinding[];
  overlaps: Overlap[];
  /** Cases that no row takes, each as the fewest values that make it one. */
  gaps: { example: ExampleValue[] }[];
  /** Whether there are more overlaps or gaps than are listed. */
  more: boolean;
  /** Cells that nothing exact can be said of: nothing is claimed that depends on them. */
  unsure: { row: number; column: number }[];
  /** Whether all was worked out; otherwise what is listed is right, and there may be more. */
  finished: boolean;
}

const MOST_GAPS = 10;
const MOST_OVERLAPS = 50;
/** As many boxes as are looked at within a second or so. */
const MOST_STEPS = 200_000;

const ANY_TIME = '2026-01-01T00:00:00.000Z';

/**
 * Checks a table over all values that its columns can hold: rows that can never decide, rows that overlap and say different
 * things, and cases that no row takes.
 */
export function checkDecisions(table: DecisionTable, around: TableAround): TableCheck {
  const ground = groundOf(table, around);
  const steps = new Steps(MOST_STEPS);
  const rows: RowFinding[] = [];
  const able: RowBox[] = [];
  let finished = true;
  ground.boxes.forEach((box, row) => {
    const finding = plainFinding(row, ground);
    const said = wrongOutputs(table, row, around.destination);
    if (!finding.unreadable && !finding.never) {
      const taken = takenBefore(box, able, ground.all, steps);
      if (taken === 'too-much') finished = false;
      else if (taken) finding.takenBefore = taken;
      able.push(box);
    }
    if (said.length) finding.unreadable = [...(finding.unreadable ?? []), ...said];
    if (finding.unreadable || finding.never || finding.takenBefore) rows.push(finding);
  });
  const dead = new Set(rows.flatMap(({ row, takenBefore }) => (takenBefore ? row : [])));
  const live = able.filter(({ row }) => !dead.has(row));
  const gaps = gapsOf(live, ground, steps);
  const overlaps = overlapsOf(table, live, ground);
  return {
    rows,
    gaps: gaps.found,
    overlaps: overlaps.slice(0, MOST_OVERLAPS),
    more: gaps.more || overlaps.length > MOST_OVERLAPS,
    unsure: ground.unsure,
    finished: finished && gaps.finished,
  };
}

interface Ground {
  columns: Column[];
  /** For each column the groups of values that the cells tell apart. */
  groups: ValueGroup[][];
  boxes: RowBox[];
  all: Box;
  unreadable: ReadonlyMap<number, { column: number; text: string }[]>;
  unsure: { row: number; column: number }[];
}

function groundOf(table: DecisionTable, around: TableAround): Ground {
  const columns = columnsOf(table, around);
  const unreadable = new Map<number, { column: number; text: string }[]>();
  const unsure: Ground['unsure'] = [];
  const parted = columns.map((column, index) => {
    const cells = table.rows.map(({ when }, row) => {
      const cell = when[index];
      if (!cell) return undefined;
      const compared = goesByTime(cell) ? null : comparedCell(cell, column, settingOf(around.destination));
      if (typeof compared !== 'string') return compared;
      unreadable.set(row, [...(unreadable.get(row) ?? []), { column: index, text: compared }]);
      return undefined;
    });
    return partColumn(column, cells, (row) => unsure.push({ row, column: index }));
  });
  const boxes = table.rows.map((_, row): RowBox => {
    const bits = parted.map(({ groups, taken }) => {
      const own = taken[row];
      if (!own) return { sure: null, may: null };
      return { sure: bitsOf(groups.length, (g) => own[g] === 1), may: bitsOf(groups.length, (g) => own[g] !== 0) };
    });
    return { row, sure: bits.map(({ sure }) => sure), may: bits.map(({ may }) => may) };
  });
  return {
    columns,
    groups: parted.map(({ groups }) => groups),
    boxes,
    all: parted.map(({ groups }) => bitsOf(groups.length, () => true)),
    unreadable,
    unsure,
  };
}

function settingOf(destination: Destination) {
  return cellSetting(destination, ANY_TIME);
}

/** The groups of a column, those that all cells treat alike as one. */
function partColumn(
  column: Column,
  cells: readonly (CheckedCell | undefined)[],
  tellUnsure: (row: number) => void,
): { groups: ValueGroup[]; taken: (Taken[] | null)[] } {
  // What several rows say alike is worked out once: many name the same value set.
  const { distinct, of } = distinctCells(cells);
  const all = valueGroups(column, distinct);
  const taken = distinct.map((cell) => takenBy(cell, all));
  const first = new Map<string, number>();
  all.forEach((_, group) => {
    const signature = taken.map((own) => own[group]).join('');
    if (!first.has(signature)) first.set(signature, group);
  });
  const kept = [...first.values()];
  const keptOf = taken.map((own) => kept.map((group) => own[group]!));
  const byRow = of.map((index) => (index === null ? null : keptOf[index]!));
  byRow.forEach((own, row) => own?.includes(2) && tellUnsure(row));
  return { groups: kept.map((group) => all[group]!), taken: byRow };
}

/** The cells that differ, and for each row which of them it has. */
function distinctCells(cells: readonly (CheckedCell | undefined)[]): {
  distinct: CheckedCell[];
  of: (number | null)[];
} {
  const distinct: CheckedCell[] = [];
  const places = new Map<string, number>();
  const sets = new Map<unknown, number>();
  const of = cells.map((cell) => {
    if (cell === undefined) return null;
    const key = cellKey(cell, sets);
    const known = places.get(key);
    if (known !== undefined) return known;
    places.set(key, distinct.length);
    return distinct.push(cell) - 1;
  });
  return { distinct, of };
}

/** The same for cells that say the same; the contents of value sets are told apart by which they are. */
function cellKey(cell: CheckedCell, sets: Map<unknown, number>): string {
  if (cell === null || 'comparison' in cell) return JSON.stringify(cell);
  const holds = 'texts' in cell ? cell.texts : cell.spans;
  if (!sets.has(holds)) sets.set(holds, sets.size);
  return `set ${sets.get(holds)} ${cell.not}`;
}

function plainFinding(row: number, { boxes, unreadable }: Ground): RowFinding {
  const wrong = unreadable.get(row);
  const never = boxes[row]!.may.flatMap((bits, column) => (bits && firstOf(bits) === -1 ? [column] : []));
  return { row, ...(wrong ? { unreadable: wrong } : {}), ...(never.length ? { never } : {}) };
}

/** Outputs that say what cannot be understood, or what there is not. */
function wrongOutputs(
  { inputs, outputs, rows }: DecisionTable,
  row: number,
  destination: Destination,
): { column: number; text: string }[] {
  return outputs.flatMap(({ name, type }, index) => {
    const value = rows[row]!.then[name];
    const text = value === undefined || value === null ? null : wrongOutput(value, type, destination);
    return text === null ? [] : [{ column: inputs.length + index, text: capitalised(text) }];
  });
}

/** The fewest of the rows before one that take every case of it; `null` where it has a case of its own. */
function takenBefore(box: RowBox, before: readonly RowBox[], all: Box, steps: Steps): number[] | 'too-much' | null {
  const cases = all.map((groups, column) => box.may[column] ?? groups);
  const covered = findUncovered(before, cases, steps);
  if (covered.is === 'too-much') return 'too-much';
  if (covered.is !== 'covered') return null;
  let needed = before.filter(({ row }) => covered.by.has(row));
  for (const one of needed) {
    const without = needed.filter((other) => other !== one);
    if (findUncovered(without, cases, steps).is === 'covered') needed = without;
  }
  return needed.map(({ row }) => row);
}

function gapsOf(
  rows: readonly RowBox[],
  ground: Ground,
  steps: Steps,
): { found: TableCheck['gaps']; more: boolean; finished: boolean } {
  const found: Box[] = [];
  let known = [...rows];
  for (;;) {
    const uncovered = findUncovered(known, ground.all, steps);
    if (uncovered.is !== 'gap') {
      const gaps = found.map((box) => ({ example: exampleOf(box, ground) }));
      return { found: gaps, more: false, finished: uncovered.is !== 'too-much' };
    }
    if (found.length === MOST_GAPS)
      return { found: found.map((box) => ({ example: exampleOf(box, ground) })), more: true, finished: true };
    const widest = widened(uncovered.box, rows, ground.all);
    found.push(widest);
    known = [...known, { row: -1, sure: widest, may: widest }];
  }
}

/** A gap as wide as no row reaches it, so that it names no more columns than it must. */
function widened(gap: Box, rows: readonly RowBox[], all: Box): Box {
  let box = gap;
  all.forEach((groups, column) => {
    const wider = box.with(column, groups);
    if (!rows.some((row) => reaches(row, wider))) box = wider;
  });
  return box;
}

function reaches({ may }: RowBox, box: Box): boolean {
  return may.every((bits, column) => !bits || meet(bits, box[column]!));
}

/** One value for each column that a box narrows. */
function exampleOf(box: Box, { groups, all }: Ground): ExampleValue[] {
  return box.flatMap((bits, column) =>
    isWithin(all[column]!, bits) ? [] : [{ column, words: groups[column]![firstOf(bits)]!.words }],
  );
}

function overlapsOf(table: DecisionTable, rows: readonly RowBox[], ground: Ground): Overlap[] {
  const said = table.rows.map(({ then }) => JSON.stringify(Object.entries(then).sort(([a], [b]) => (a < b ? -1 : 1))));
  const overlaps: Overlap[] = [];
  for (let later = 1; later < rows.length; later += 1) {
    for (let earlier = 0; earlier < later; earlier += 1) {
      const [one, other] = [rows[earlier]!, rows[later]!];
      const both = commonBox(one, other, ground.all);
      if (!both) continue;
      if (table.fits !== 'one' && (said[one.row] === said[other.row] || holds(other, one, ground.all))) continue;
      overlaps.push({ rows: [one.row, other.row], example: exampleOf(both, ground) });
      if (overlaps.length > MOST_OVERLAPS) return overlaps;
    }
  }
  return overlaps;
}

/** What two rows both take for sure; `null` where there is nothing. */
function commonBox(one: RowBox, other: RowBox, all: Box): Box | null {
  const box: Bits[] = [];
  for (let column = 0; column < all.length; column += 1) {
    const bits = common(one.sure[column] ?? all[column]!, other.sure[column] ?? all[column]!);
    if (firstOf(bits) === -1) return null;
    box.push(bits);
  }
  return box;
}

/** Whether a row takes every case of another: the usual way to say a rule with exceptions before it. */
function holds(wide: RowBox, narrow: RowBox, all: Box): boolean {
  return wide.sure.every((bits, column) => !bits || isWithin(narrow.may[column] ?? all[column]!, bits));
}
