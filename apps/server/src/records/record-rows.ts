import { BUILT_IN_FIELDS, type FieldValues, type KnownRecord, type RecordKind } from '@haycart/core';
import { COLUMNS_OF } from './field-columns';

/** A record as it lies in its table, with the columns' own names. */
export type RecordRow = Record<string, unknown> & {
  id: string;
  number: string | number;
  created_at: Date;
  updated_at: Date;
};

const fieldsOf = (kind: RecordKind) => BUILT_IN_FIELDS.filter(({ record }) => record === kind);
const COLUMN_FIELDS: Record<RecordKind, typeof BUILT_IN_FIELDS> = {
  contact: fieldsOf('contact'),
  company: fieldsOf('company'),
  lead: fieldsOf('lead'),
  deal: fieldsOf('deal'),
};

/** The columns of a kind that hold its built-in fields. */
export function fieldColumns(kind: RecordKind): string[] {
  return COLUMN_FIELDS[kind].flatMap(({ key, type }) => COLUMNS_OF[type].names(key));
}

/** The fields' values as columns: built-in ones each in their own, the workspace's own in `custom`. */
export function valuesToColumns(kind: RecordKind, values: FieldValues): Record<string, unknown> {
  const columns: Record<string, unknown> = {};
  const custom = { ...values };
  for (const { key, type } of COLUMN_FIELDS[kind]) {
    Object.assign(columns, COLUMNS_OF[type].write(key, values[key]));
    delete custom[key];
  }
  return { ...columns, custom };
}

/** The fields' values from columns; blanks are left out. */
export function columnsToValues(kind: RecordKind, row: Record<string, unknown>): FieldValues {
  const values: FieldValues = {};
  for (const { key, type } of COLUMN_FIELDS[kind]) {
    const value = COLUMNS_OF[type].read(key, row);
    if (value !== null) values[key] = value;
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
