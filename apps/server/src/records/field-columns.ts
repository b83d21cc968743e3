import { isMoney, type FieldType, type FieldValue } from '@haycart/core';

/** What rows are ordered by, as SQL, and how its text in a cursor is read again. */
export interface Order {
  by: string;
  type: string;
}

/** How the values of a type lie in the table of their kind, for fields that are built in: a column is called like its field. */
export interface FieldColumns {
  names: (key: string) => string[];
  /** What the columns hold for a value; `undefined` is blank. */
  write: (key: string, value: FieldValue | undefined) => Record<string, unknown>;
  /** The value that a row holds, as the database gives it; `null` is blank. */
  read: (key: string, row: Record<string, unknown>) => FieldValue | null;
  order: (key: string) => Order;
  /** Whether the row `r` holds none, as SQL. */
  blank: (key: string) => string;
}

/** Columns that hold an empty list where nothing is set. */
export const NEVER_NULL: ReadonlySet<string> = new Set(['tags', 'lists']);

const one = (column: Omit<FieldColumns, 'names' | 'write'> & Partial<FieldColumns>): FieldColumns => ({
  names: (key) => [key],
  write: (key, value) => ({ [key]: value ?? null }),
  ...column,
});
const asItIs = (key: string, row: Record<string, unknown>) => (row[key] ?? null) as FieldValue | null;
/** The database gives large and exact numbers as texts. */
const asNumber = (key: string, row: Record<string, unknown>) => ((row[key] ?? null) === null ? null : Number(row[key]));
const isNull = (key: string) => `r.${key} is null`;

/** Told apart in lists without capitals. */
const TEXT = one({
  read: asItIs,
  order: (key) => ({ by: `lower(r.${key})`, type: 'text' }),
  blank: (key) => `coalesce(r.${key}, '') = ''`,
});
/** The key of something, which has no capitals. */
const KEY: FieldColumns = { ...TEXT, order: (key) => ({ by: `r.${key}`, type: 'text' }) };

/** Every type, so that a new one, or a first built-in field of one, has its place here and nowhere else. */
export const COLUMNS_OF = {
  text: TEXT,
  'long-text': TEXT,
  email: TEXT,
  phone: TEXT,
  web: TEXT,
  'one-of': TEXT,
  person: KEY,
  // ISO 8601, so that it is ordered as it stands.
  date: KEY,
  'whole-number': one({
    read: asNumber,
    order: (key) => ({ by: `r.${key}`, type: 'bigint' }),
    blank: isNull,
  }),
  decimal: one({
    read: asNumber,
    order: (key) => ({ by: `r.${key}`, type: 'numeric' }),
    blank: isNull,
  }),
  'yes-no': one({ read: asItIs, order: (key) => ({ by: `r.${key}`, type: 'boolean' }), blank: isNull }),
  'date-time': one({
    read: (key, row) => (row[key] instanceof Date ? row[key].toISOString() : asItIs(key, row)),
    order: (key) => ({ by: `r.${key}`, type: 'timestamptz' }),
    blank: isNull,
  }),
  'several-of': one({
    write: (key, value) => ({ [key]: value ?? (NEVER_NULL.has(key) ? [] : null) }),
    read: (key, row) => (Array.isArray(row[key]) && row[key].length ? (row[key] as string[]) : null),
    order: (key) => ({ by: `lower(r.${key}::text)`, type: 'text' }),
    blank: (key) => `coalesce(cardinality(r.${key}), 0) = 0`,
  }),
  money: {
    names: (key) => [`${key}_amount`, `${key}_currency`],
    write: (key, value) => ({
      [`${key}_amount`]: isMoney(value) ? value.amount : null,
      [`${key}_currency`]: isMoney(value) ? value.currency : null,
    }),
    read: (key, row) => {
      const amount = row[`${key}_amount`] ?? null;
      return amount === null ? null : { amount: Number(amount), currency: String(row[`${key}_currency`]) };
    },
    order: (key) => ({ by: `r.${key}_amount`, type: 'bigint' }),
    blank: (key) => `r.${key}_amount is null`,
  },
} satisfies Record<FieldType, FieldColumns>;

const number = (json: string): Order => ({
  by: `(case when jsonb_typeof(${json}) = 'number' then (${json})::numeric end)`,
  type: 'numeric',
});

/** What rows are ordered by in a field that the workspace made. A key holds nothing but letters, digits and underlines. */
export function ownOrder(key: string, type: FieldType): Order {
  switch (type) {
    case 'whole-number':
    case 'decimal':
      return number(`r.custom -> '${key}'`);
    case 'money':
      return number(`r.custom -> '${key}' -> 'amount'`);
    case 'text':
    case 'long-text':
    case 'date':
    case 'date-time':
    case 'yes-no':
    case 'one-of':
    case 'several-of':
    case 'email':
    case 'phone':
    case 'web':
    case 'person':
      return { by: `lower(r.custom ->> '${key}')`, type: 'text' };
  }
}
