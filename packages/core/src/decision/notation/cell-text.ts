import type { Column } from '../column';
import type { CellTest } from '../decision-table';
import type { CellNames } from './family-notation';
import { NOTATIONS } from './registry';
import { meansAnything, quoted } from './items';

/** A cell as it was typed: a test, `null` for anything, or a sentence that says why it means nothing. */
export type ReadCell = { ok: true; cell: CellTest | null } | { ok: false; text: string };

/** The test of a cell that could not be read: its value is what was typed, which is kept until somebody mends it. */
export const UNREAD = 'unread';

/** Longer cells are refused. */
const LONGEST_CELL = 10_000;

/**
 * Reads what was typed into a cell of a column.
 * @example readCell('at least 50', bays, names) // { ok: true, cell: { test: 'at-least', value: 50 } }
 */
export function readCell(typed: string, column: Column, names: CellNames): ReadCell {
  if (typed.length > LONGEST_CELL) return { ok: false, text: 'A cell takes at most 10,000 characters.' };
  // Lines within a cell of a sheet are items of a list.
  const lines = typed.split('\n').map((line) => line.trim());
  const text = lines
    .filter((line) => line !== '')
    .join(', ')
    .replace(/\s+/g, ' ');
  const word = text.toLowerCase();
  if (meansAnything(word)) return { ok: true, cell: null };
  if (word === 'blank') return { ok: true, cell: { test: 'blank' } };
  if (word === 'not blank') return { ok: true, cell: { test: 'filled' } };
  const read = readSet(text, column, names) ?? NOTATIONS[column.family].read(text, column, names);
  return typeof read === 'string' ? { ok: false, text: read } : { ok: true, cell: read };
}

/** A cell as it is typed; `''` for anything. What no text can say is shown by its parts. */
export function showCell(cell: CellTest | null, column: Column, names: CellNames): string {
  if (!cell) return '';
  if (cell.test === UNREAD) return String(cell.value);
  if (cell.test === 'blank') return 'blank';
  if (cell.test === 'filled') return 'not blank';
  if (cell.test === 'in-set' || cell.test === 'not-in-set')
    return `${cell.test === 'in-set' ? 'in' : 'not in'} ${setName(String(cell.value), names)}`;
  return (
    NOTATIONS[column.family].show(cell, column, names) ?? `${cell.test} ${JSON.stringify(cell.value) ?? ''}`.trim()
  );
}

function readSet(text: string, { family }: Column, { valueSets }: CellNames): CellTest | string | null {
  if (family !== 'text' && family !== 'region') return null;
  const found = /^(not )?in (.+)$/i.exec(text);
  if (!found) return null;
  const called = found[2]!.replace(/^"(.*)"$/, '$1');
  const key = Object.hasOwn(valueSets, called)
    ? called
    : Object.keys(valueSets).find((one) => valueSets[one]!.name.toLowerCase() === called.toLowerCase());
  if (key === undefined)
    return `There is no value set “${called}”. A text that begins with “in” is typed as ${quoted(text)}.`;
  return { test: found[1] ? 'not-in-set' : 'in-set', value: key };
}

/** The name of a set, or its key where the name alone would lead to another. */
function setName(key: string, { valueSets }: CellNames): string {
  const name = Object.hasOwn(valueSets, key) ? valueSets[key]!.name : key;
  const first = Object.hasOwn(valueSets, name)
    ? name
    : Object.keys(valueSets).find((one) => valueSets[one]!.name.toLowerCase() === name.toLowerCase());
  return first === key && name === name.trim().replace(/\s+/g, ' ') ? name : key;
}
