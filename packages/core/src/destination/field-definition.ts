import type { RecordKind } from '../diff/record';

export const FIELD_TYPES = [
  'text',
  'long-text',
  'whole-number',
  'decimal',
  'money',
  'date',
  'date-time',
  'yes-no',
  'one-of',
  'several-of',
  'email',
  'phone',
  'web',
] as const;
export type FieldType = (typeof FIELD_TYPES)[number];

/** One choice of a list field. The key never changes; aliases are what forms may call it. */
export interface FieldOption {
  key: string;
  label: string;
  aliases?: string[];
  /** No longer to be chosen; records that hold it keep it. */
  retired?: boolean;
}

/** One field of a kind of record, built in or made by the workspace. */
export interface FieldDefinition {
  record: RecordKind;
  key: string;
  label: string;
  type: FieldType;
  builtIn: boolean;
  /** A record cannot be created while a required field is blank. */
  required: boolean;
  /** Kept by Hay Cart itself; no route may feed it. */
  kept?: boolean;
  options?: FieldOption[];
  help?: string;
}
