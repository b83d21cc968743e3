import { ProblemError } from './errors/problem-error';

/** Where a keyset page begins: after the row with this time and id. */
export interface Cursor {
  at: string;
  id: string;
}

/** SQL that writes a time as a cursor holds it, to the microsecond. */
export const cursorTime = (column: string) => `to_char(${column} at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`;

const PAGE = { usual: 50, most: 200 };

/** `?limit=`, 1 to 200; 50 when not said. */
export function readLimit(text: string | undefined, { usual, most } = PAGE): number {
  const limit = text === undefined ? usual : Number(text);
  if (!Number.isInteger(limit) || limit < 1 || limit > most)
    throw new ProblemError('refused', `limit takes a whole number from 1 to ${most.toLocaleString('en-GB')}.`);
  return limit;
}

/** `?after=`, as a list gave it in `next`. */
export function readCursor(text: string | undefined): Cursor | null {
  if (text === undefined || text === '') return null;
  const [at = '', id = ''] = Buffer.from(text, 'base64url').toString().split(' ');
  if (Number.isNaN(Date.parse(at)) || !/^[0-9a-f-]{36}$/.test(id))
    throw new ProblemError('refused', 'after takes what an earlier page gave as next.');
  return { at, id };
}

/** Cuts what was read, one row more than asked for, into a page. */
export function pageOf<Row, Item>(
  rows: readonly Row[],
  limit: number,
  item: (row: Row) => Item,
  cursor: (row: Row) => Cursor,
  total?: number,
): { items: Item[]; next?: string; total?: number } {
  const shown = rows.slice(0, limit);
  const last = shown[shown.length - 1];
  const next =
    rows.length > limit && last
      ? Buffer.from(`${cursor(last).at} ${cursor(last).id}`).toString('base64url')
      : undefined;
  return { items: shown.map(item), ...(next ? { next } : {}), ...(total === undefined ? {} : { total }) };
}

/** Whether a text is a UUID, so that it may be asked for at all. */
export function isId(text: string): boolean {
  return /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i.test(text);
}
