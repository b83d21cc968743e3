import {
  BUILT_IN_FIELDS,
  isMoney,
  type FieldValue,
  type FieldValues,
  type KnownRecord,
  type RecordKind,
} from '@haycart/core';

/** A record as it lies in its table, with the columns' own names. */
export type RecordRow = Record<string, unknown> & {
  id: string;
  number: string | number;
  created_at: Date;
  updated_at: Date;
};

/** Built-in fields are columns of the same name; an amount of money takes two. */
const fieldsOf = (kind: RecordKind) => BUILT_IN_FIELDS.filter(({ record }) => record === kind);
/** Columns that hold an empty list where nothing is set. */
export const NEVER_NULL: ReadonlySet<string> = new Set(['tags', 'lists']);
const COLUMN_FIELDS: Record<RecordKind, typeof BUILT_IN_FIELDS> = {
  contact: fieldsOf('contact'),
  company: fieldsOf('company'),
  lead: fieldsOf('lead'),
  deal: fieldsOf('deal'),
};

/** The columns of a kind that hold its built-in fields. */
export function fieldColumns(kind: RecordKind): string[] {
  return COLUMN_FIELDS[kind].flatMap(({ key, type }) =>
    type === 'money' ? [`${key}_amount`, `${key}_currency`] : [key],
  );
}

/** The fields' values as columns: built-in ones each in their own, the workspace's own in `custom`. */
export function valuesToColumns(kind: RecordKind, values: FieldValues): Record<string, unknown> {
  const columns: Record<string, unknown> = {};
  const custom = { ...values };
  for (const { key, type } of COLUMN_FIELDS[kind]) {
    const value = values[key];
    delete custom[key];
    if (type === 'money') {
      columns[`${key}_amount`] = isMoney(value) ? value.amount : null;
      columns[`${key}_currency`] = isMoney(value) ? value.currency : null;
    } else columns[key] = value ?? (NEVER_NULL.has(key) ? [] : null);
  }
  return { ...columns, custom };
}

/** The fields' values from columns; blanks are left out. */
export function columnsToValues(kind: RecordKind, row: Record<string, unknown>): FieldValues {
  const values: FieldValues = {};
  for (const { key, type } of COLUMN_FIELDS[kind]) {
    const value = type === 'money' ? moneyFrom(row[`${key}_amount`], row[`${key}_currency`]) : row[key];
    if (value !== null && value !== undefined && !(Array.isArray(value) && !value.length))
      values[key] = value instanceof Date ? value.toISOString() : (value as FieldValue);
  }
  return { ...values, ...(row.custom as FieldValues) };
}

export function knownRecord(kind: RecordKind, row: RecordRow): KnownRecord {
  return {
    id: row.id,
    kind,
    values: columnsToValues(kind, row),
    createdAt: row.created_at.toISOString(),
    writtenAt: row.written_at as Record<string, string>,
    typed: row.typed as string[],
  };
}

/** What a record is called in lists and sentences. */
export function recordName(kind: RecordKind, values: FieldValues): string {
  const name = kind === 'contact' ? (values.full_name ?? values.email ?? values.phone) : values.name;
  return typeof name === 'string' && name !== '' ? name : 'without a name';
}

function moneyFrom(amount: unknown, currency: unknown): FieldValue | null {
  return amount === null || amount === undefined ? null : { amount: Number(amount), currency: String(currency) };
}
