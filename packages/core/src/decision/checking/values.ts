import { foldCase } from '../../condition/comparison';
import { dayAfter } from '../../condition/wanted';
import type { FieldValue } from '../../diff/record';
import { formatMoney } from '../../reading/money';
import { meetsCell, type CellCompared } from '../cell';
import type { Column } from '../column';
import { timeText } from '../notation/families/time-of-day';

/**
 * A group of values of a column that no cell tells apart, or that cannot be told apart for sure. Every value of the column
 * is in exactly one of them.
 */
export interface ValueGroup {
  /** One of the values; `undefined` where it is any that no cell names. */
  example: FieldValue | null | undefined;
  /** The values in words: `Leeds`, `under 4`, `blank`. */
  words: string;
}

/** Whether a cell takes a group: 0 no, 1 yes, 2 some of its values perhaps. */
export type Taken = 0 | 1 | 2;

/** A cell to be reasoned about; `null` where it goes by the time of arrival. */
export type CheckedCell = CellCompared | null;

const BLANK: ValueGroup = { example: null, words: 'blank' };
const OTHER: ValueGroup = { example: undefined, words: 'anything else' };
const MINUTES_A_DAY = 1_440;

/** The groups into which the cells of a column part its values. */
export function valueGroups(column: Column, cells: readonly CheckedCell[]): ValueGroup[] {
  const groups = groupsBesideBlank(column, cells);
  return column.mayBeBlank ? [...groups, BLANK] : groups;
}

function groupsBesideBlank(column: Column, cells: readonly CheckedCell[]): ValueGroup[] {
  switch (column.family) {
    case 'text':
      return textGroups(cells);
    case 'number':
      return column.type === 'money' ? moneyGroups(cells) : numberGroups(boundsOf(cells), column.whole, String);
    case 'time-of-day':
      return numberGroups([0, ...boundsOf(cells), MINUTES_A_DAY - 1], true, timeText).filter(
        ({ example }) => Number(example) >= 0 && Number(example) < MINUTES_A_DAY,
      );
    case 'day':
      return dayGroups(cells, column.type === 'date-time');
    case 'yes-no':
      return [
        { example: true, words: 'yes' },
        { example: false, words: 'no' },
      ];
    case 'options':
      return column.options.filter(({ retired }) => !retired).map(({ key, label }) => ({ example: key, words: label }));
    case 'several':
      return [{ example: undefined, words: 'any choice' }];
    case 'region':
      return regionGroups(cells);
  }
}

function textGroups(cells: readonly CheckedCell[]): ValueGroup[] {
  const named = new Map<string, string>();
  for (const text of cells.flatMap(textsOf)) if (!named.has(foldCase(text))) named.set(foldCase(text), text);
  return [...[...named.values()].map((text) => ({ example: text, words: text })), OTHER];
}

function textsOf(cell: CheckedCell): readonly string[] {
  if (cell && 'texts' in cell) return cell.values;
  return cell && 'comparison' in cell && cell.comparison.of === 'text' ? cell.comparison.wanted : [];
}

function boundsOf(cells: readonly CheckedCell[], currency?: string): number[] {
  return cells.flatMap((cell) => {
    if (!cell || !('comparison' in cell) || cell.comparison.of !== 'number') return [];
    const { least, most, over, under, currency: own } = cell.comparison;
    return own === currency ? [least, most, over, under].filter((bound) => bound !== undefined) : [];
  });
}

function numberGroups(bounds: readonly number[], whole: boolean, show: (number: number) => string): ValueGroup[] {
  const sorted = [...new Set(bounds)].sort((one, other) => one - other);
  if (!sorted.length) return [OTHER];
  const groups: ValueGroup[] = [{ example: sorted[0]! - 1, words: `under ${show(sorted[0]!)}` }];
  sorted.forEach((bound, index) => {
    groups.push({ example: bound, words: show(bound) });
    const next = sorted[index + 1];
    if (next === undefined) groups.push({ example: bound + 1, words: `over ${show(bound)}` });
    else if (!whole || next - bound > 1) groups.push(betweenGroup(bound, next, show));
  });
  return groups;
}

function betweenGroup(bound: number, next: number, show: (number: number) => string): ValueGroup {
  const round = Math.floor(bound) + 1;
  const example = round < next ? round : (bound + next) / 2;
  return { example, words: show(example) };
}

function moneyGroups(cells: readonly CheckedCell[]): ValueGroup[] {
  const currencies = new Set(
    cells.flatMap((cell) =>
      cell && 'comparison' in cell && cell.comparison.of === 'number' && cell.comparison.currency !== undefined
        ? [cell.comparison.currency]
        : [],
    ),
  );
  const named = [...currencies].flatMap((currency) => {
    const show = (amount: number) => formatMoney({ amount, currency });
    return numberGroups(boundsOf(cells, currency), true, show).map(({ example, words }) => ({
      example: { amount: Number(example), currency },
      words,
    }));
  });
  return [...named, { example: undefined, words: currencies.size ? 'another currency' : 'any amount' }];
}

function dayGroups(cells: readonly CheckedCell[], moments: boolean): ValueGroup[] {
  const bounds = cells.flatMap((cell) =>
    cell && 'comparison' in cell && cell.comparison.of === 'time'
      ? [cell.comparison.from, cell.comparison.before].filter((day) => day !== undefined)
      : [],
  );
  const sorted = [...new Set(bounds)].sort();
  if (!sorted.length) return [OTHER];
  const value = (day: string) => (moments ? `${day}T00:00:00.000Z` : day);
  return [
    { example: value(dayAfter(sorted[0]!, -1)), words: `before ${sorted[0]}` },
    ...sorted.map((day, index) => ({ example: value(day), words: index === sorted.length - 1 ? `from ${day}` : day })),
  ];
}

function regionGroups(cells: readonly CheckedCell[]): ValueGroup[] {
  const bounds = cells.flatMap((cell) =>
    cell && 'spans' in cell ? cell.spans.flatMap(({ from, before }) => [from, before]) : [],
  );
  const sorted = [...new Set(bounds)].sort();
  // A space comes before every country.
  return [' ', ...sorted].map((from) => ({ example: from, words: regionWords(from) }));
}

/** What begins at a boundary: `NL 1000`, `NL`, or somewhere that no cell names. */
function regionWords(from: string): string {
  const country = from.slice(0, 2);
  if (from === ' ' || from.endsWith('!')) return 'a country that no row names';
  if (from.endsWith('\uFFFF')) return `${country}, a postal code after ${from.slice(3, -1)}`;
  return from.length === 3 ? country : from;
}

/** Which groups a cell takes. */
export function takenBy(cell: CheckedCell, groups: readonly ValueGroup[]): Taken[] {
  if (cell === null) return groups.map(({ example }) => (example === null ? 0 : 2));
  const texts = equalTexts(cell);
  return groups.map(({ example }) => {
    if (example === undefined) return takesOther(cell);
    if (texts && typeof example === 'string') return texts.has(foldCase(example)) !== cell.not ? 1 : 0;
    return meetsCell(cell, example) ? 1 : 0;
  });
}

function equalTexts(cell: CellCompared): ReadonlySet<string> | null {
  if ('texts' in cell) return cell.texts;
  if (!('comparison' in cell) || cell.comparison.of !== 'text' || cell.comparison.how !== 'equals') return null;
  return new Set(cell.comparison.wanted.map(foldCase));
}

/** Whether a cell takes what no cell names; of patterns and of several choices nobody knows. */
function takesOther(cell: CellCompared): Taken {
  if (!('comparison' in cell)) return cell.not ? 1 : 0;
  const { comparison, not } = cell;
  const unsure = comparison.of === 'options' || (comparison.of === 'text' && comparison.how !== 'equals');
  if (unsure) return 2;
  // What is filled in meets the opposite of everything that names something else.
  return not ? 1 : 0;
}
