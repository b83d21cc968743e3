import { ProblemError } from './errors/problem-error';
import { isId } from './paging';

/** Where a page of a sorted list begins: after the row with this value (as text; `null` is blank) and id. */
export interface ListCursor {
  value: string | null;
  id: string;
}

export function writeListCursor({ value, id }: ListCursor): string {
  return Buffer.from(JSON.stringify([value, id])).toString('base64url');
}

/** `?after=`, as a list gave it in `next`. */
export function readListCursor(text: string | undefined): ListCursor | null {
  if (text === undefined || text === '') return null;
  try {
    const [value, id] = JSON.parse(Buffer.from(text, 'base64url').toString()) as unknown[];
    if ((value === null || typeof value === 'string') && typeof id === 'string' && isId(id)) return { value, id };
  } catch {
    // Not what a list gave.
  }
  throw new ProblemError('refused', 'after takes what an earlier page gave as next.');
}
