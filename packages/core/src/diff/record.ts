import type { JsonObject } from '../json';

/** The kinds of record that routes write and people work with. */
export const RECORD_KINDS = ['contact', 'company', 'lead', 'deal'] as const;
export type RecordKind = (typeof RECORD_KINDS)[number];

/** An amount in minor units (pence, cents) with its ISO 4217 currency. */
export interface Money {
  amount: number;
  currency: string;
}

/** What one field of a record can hold. A blank field is absent from `values`, and `null` in a change. */
export type FieldValue = string | number | boolean | string[] | Money;
export type FieldValues = Record<string, FieldValue>;

/** One record: its kind and the fields that are not blank. Its id is the key under which it is held. */
export interface RecordState {
  kind: RecordKind;
  values: FieldValues;
}

/** One record points to another: a deal to its contact, a contact to its company. Both ends are ids. */
export interface Link {
  from: string;
  to: string;
}

/** Some records and the links between them, by id. */
export interface RecordsState {
  records: Record<string, RecordState>;
  links: Link[];
}

/** Whether two field values are the same; `null` and `undefined` are both blank. */
export function sameValue(a: FieldValue | null | undefined, b: FieldValue | null | undefined): boolean {
  if (a === b) return true;
  if (a === null || a === undefined || b === null || b === undefined) return (a ?? null) === (b ?? null);
  if (Array.isArray(a)) return Array.isArray(b) && a.length === b.length && a.every((item, i) => item === b[i]);
  if (isMoney(a)) return isMoney(b) && a.amount === b.amount && a.currency === b.currency;
  return false;
}

export function isMoney(value: unknown): value is Money {
  return typeof value === 'object' && value !== null && !Array.isArray(value) && 'currency' in (value as JsonObject);
}
