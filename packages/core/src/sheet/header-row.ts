import { plainName, plainWords } from '../reading/plain-name';
import { SYNONYMS } from '../reading/synonyms';
import { columnNames, type Cells } from './table-rows';

/** Rows among which the names of the columns are looked for. */
export const HEAD_ROWS = 12;
const KNOWN = new Set(Object.values(SYNONYMS).flat());

/** The names of a table's columns, and the place of the row that gives them; -1 where none does. */
export interface TableHead {
  columns: string[];
  at: number;
}

/**
 * The head of a table by its first rows. What stands above the names of the columns, such as a title, is less wide than
 * they are.
 */
export function tableHead(rows: readonly Cells[]): TableHead {
  const first = rows.slice(0, HEAD_ROWS).map((row) => ('cells' in row ? row.cells : []));
  const widest = Math.max(0, ...first.map(filled));
  const wide = first.findIndex((cells) => filled(cells) >= widest * MOSTLY);
  if (wide !== -1 && looksLikeHeader(first[wide]!)) return { columns: columnNames(first[wide]!, true), at: wide };
  const most = first.reduce((longest, cells) => (cells.length > longest.length ? cells : longest), []);
  return { columns: columnNames(most, false), at: -1 };
}

/** In what share of the columns a row of their names has one. */
const MOSTLY = 0.6;

/**
 * Whether a row names columns: none of its cells is a value, but that a year may be a name beside known ones; and unless
 * it has known names, no two are the same.
 */
function looksLikeHeader(cells: readonly string[]): boolean {
  const names = cells.map((cell) => cell.trim()).filter(Boolean);
  if (!names.length || names.some((name) => /@|^https?:/i.test(name))) return false;
  const known = names.filter(isKnown).length;
  const numbers = names.filter((name) => /^[\d\s.,:/+()-]+$/.test(name));
  if (known) return numbers.every(isYear);
  return !numbers.length && new Set(names.map((name) => name.toLowerCase())).size === names.length;
}

function isKnown(name: string): boolean {
  return KNOWN.has(plainName(name)) || plainWords(name).some((word) => word.length > 3 && KNOWN.has(word));
}

function isYear(text: string): boolean {
  return /^(?:19|20)\d\d$/.test(text);
}

function filled(cells: readonly string[]): number {
  return cells.filter((cell) => cell.trim() !== '').length;
}
