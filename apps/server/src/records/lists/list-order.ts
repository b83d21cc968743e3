import type { FieldDefinition, ListSort, RecordKind } from '@haycart/core';
import type { ListCursor } from '../../platform/list-cursor';
import type { Values } from '../../platform/database/values';
import { COLUMNS_OF, ownOrder, type Order } from '../field-columns';

/** The order of a list, as SQL on the row `r`. */
export interface ListOrder extends Order {
  down: boolean;
  /** Whether some rows may have nothing to be ordered by; they stand last. */
  blanks: boolean;
}

const NEVER_BLANK: Record<RecordKind, readonly string[]> = {
  contact: [],
  company: ['name'],
  lead: ['name'],
  deal: ['name', 'pipeline', 'stage', 'status', 'stage_since'],
};

/** The order that a sort asks for; the latest changed first when nothing is asked. */
export function listOrder(kind: RecordKind, sort: ListSort | undefined, fields: readonly FieldDefinition[]): ListOrder {
  const { field: key, down } = sort ?? { field: 'updated_at', down: true };
  const field = fields.find((one) => one.key === key)!;
  if (['number', 'created_at', 'updated_at'].includes(key))
    return { by: `r.${key}`, type: key === 'number' ? 'bigint' : 'timestamptz', down, blanks: false };
  const blanks = !NEVER_BLANK[kind].includes(key);
  return { ...(field.builtIn ? COLUMNS_OF[field.type].order(key) : ownOrder(key, field.type)), down, blanks };
}

/** The text of the value that a row is ordered by, exact to the microsecond. */
export function cursorText({ by, type }: ListOrder): string {
  return type === 'timestamptz'
    ? `to_char(${by} at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`
    : `(${by})::text`;
}

/** The rows with something to be ordered by, from a place on. */
export function filledRows(order: ListOrder, after: ListCursor | null, values: Values): string {
  const filled = order.blanks ? `${order.by} is not null` : 'true';
  if (!after || after.value === null) return after ? 'false' : filled;
  const place = `(${values.add(after.value, order.type)}, ${values.add(after.id, 'uuid')})`;
  return `(${order.by}, r.id) ${order.down ? '<' : '>'} ${place}`;
}

/** The rows with nothing to be ordered by, which come after all others. */
export function blankRows(order: ListOrder, after: ListCursor | null, values: Values): string {
  const rest =
    after && after.value === null ? ` and r.id ${order.down ? '<' : '>'} ${values.add(after.id, 'uuid')}` : '';
  return `${order.by} is null${rest}`;
}
