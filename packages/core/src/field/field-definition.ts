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
  'person',
] as const;
export type FieldType = (typeof FIELD_TYPES)[number];

/** The marks by which options, tags and lists are told apart; always beside their name. */
export const COLOUR_MARKS = ['moss', 'straw', 'brick', 'slate', 'plum', 'clay', 'teal', 'stone'] as const;
export type ColourMark = (typeof COLOUR_MARKS)[number];

/** One choice of a list field. The key never changes; aliases are what forms may call it. */
export interface FieldOption {
  key: string;
  label: string;
  aliases?: string[];
  colour?: ColourMark;
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
  /** Kept, but people set it: owner, tags, lists, further e-mails. */
  byHand?: boolean;
  /** No two records hold the same value. */
  unique?: boolean;
  options?: FieldOption[];
  help?: string;
  /** The heading under which it stands on the record's page. */
  group?: string;
}
