import type { FieldDefinition } from '@haycart/core';

export interface FieldShape extends FieldDefinition {
  id: string | null;
  /** Out of use: its values stay on the records. */
  retired?: boolean;
}

/** A field with what feeds it and how full it is. */
export interface FieldUse extends FieldShape {
  /** How many records of its kind there are, and how many of them hold a value. */
  records: number;
  filled: number;
  lastFilledAt: string | null;
  /** When that was counted, where there are too many records to count for each that asks; null: just now. */
  countedAt: string | null;
  routes: { id: string; name: string }[];
  /** Forms that ask for it. */
  forms: { key: string; name: string }[];
  /** Kept views of lists that name it. */
  views: { id: string; name: string }[];
}

/** What another type would do to the values of a field. */
export interface TypeChangeRehearsal {
  /** How many records hold a value, and how many of those values fit. */
  records: number;
  fit: number;
  examples: { from: string; to: string }[];
  misfits: { value: string; records: number }[];
  misfitRecords: number;
}

/** What moving a field to another kind of record would do. */
export interface FieldMoveRehearsal {
  label: string;
  /** How many records hold a value, and how many records of the other kind get one. */
  values: number;
  moved: number;
  /** Values whose record is linked with none of the other kind; they stay, out of sight. */
  nowhere: number;
  /** Values that give way to a later one of the same record. */
  several: number;
  routes: { id: string; name: string; follows: boolean }[];
}
