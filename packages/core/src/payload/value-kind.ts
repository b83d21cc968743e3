import type { FieldType } from '../field/field-definition';
import type { JsonValue } from '../json';
import { countryNamed } from '../reading/country-name';
import { readDate } from '../reading/date-text';
import { epochMoment } from '../reading/epoch';
import { yesOrNo } from '../reading/yes-no-words';

/** What a value looks like by itself. What a field holds is told by all of its values; see `fieldKind`. */
export const VALUE_KINDS = [
  'email',
  'phone',
  'web',
  'date',
  'date-time',
  'money',
  'whole-number',
  'decimal',
  'yes-no',
  'country',
  'id',
  'list',
  'long-text',
  'text',
] as const;
export type ValueKind = (typeof VALUE_KINDS)[number];

const MAILBOX = /^[^\s@<>]+@([^\s@<>]+)$/;
const WEB = /^(?:https?:\/\/|www\.)(\S+)$/i;
const TIME = /^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}/;
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;
/** Letters and digits mixed without a word in them, as systems name things. */
const ID = /^(?=\S*\d)(?=\S*[a-z])[\w-]{12,}$/i;
const MONEY = /^[-]?\s*(?:[£€$]|[A-Z]{3}\s)\s*\d[\d.,' ]*$|^[-]?\d[\d.,'\s]*(?:[£€$]|[A-Z]{3})$/;
const WHOLE = /^-?\d{1,15}$/;
const DECIMAL = /^-?\d{1,3}(?:[.,' ]?\d{3})*(?:[.,]\d+)?$/;
const PHONE = /^\+?[\d\s().\-/]{6,25}$/;
/** Longer texts are messages. */
const LONG = 120;

/** What one value looks like; `null` for a blank. */
export function valueKind(value: JsonValue | undefined): ValueKind | null {
  if (value === null || value === undefined) return null;
  if (typeof value === 'number') {
    if (!Number.isInteger(value)) return 'decimal';
    return epochMoment(String(value)) ? 'date-time' : 'whole-number';
  }
  if (typeof value === 'boolean') return 'yes-no';
  if (Array.isArray(value) && value.length === 1) return valueKind(value[0]);
  if (typeof value === 'object') return 'list';
  const text = value.trim();
  if (text === '') return null;
  if (text.length > LONG || text.includes('\n')) return isWeb(text) ? 'web' : 'long-text';
  if (hasInnerDot(MAILBOX.exec(text)?.[1])) return 'email';
  if (isWeb(text)) return 'web';
  if (UUID.test(text)) return 'id';
  if (TIME.test(text)) return 'date-time';
  if (yesOrNo(text) !== null && !/^[01]$/.test(text)) return 'yes-no';
  if (/\d/.test(text)) return kindWithDigits(text);
  return text.length > 1 && countryNamed(text) !== null ? 'country' : 'text';
}

function isWeb(text: string): boolean {
  return hasInnerDot(WEB.exec(text)?.[1]);
}

function hasInnerDot(text = ''): boolean {
  const dot = text.indexOf('.', 1);
  return dot !== -1 && dot < text.length - 1;
}

function kindWithDigits(text: string): ValueKind {
  if (MONEY.test(text)) return 'money';
  if (WHOLE.test(text) && !/^0\d{5}/.test(text)) {
    // Ten digits that are typed may as well be a phone number.
    if (text.length === 13 && epochMoment(text)) return 'date-time';
    return isLikeCompactDate(text) ? 'date' : 'whole-number';
  }
  const isPhone = PHONE.test(text) && /\d{6}/.test(text.replace(/\D/g, ''));
  if (isPhone && (/^[+(0]/.test(text) || text.replace(/\D/g, '').length >= 9) && !isDate(text)) return 'phone';
  if (DECIMAL.test(text)) return 'decimal';
  if (isDate(text)) return 'date';
  return ID.test(text) && !/\s/.test(text) ? 'id' : 'text';
}

function isDate(text: string): boolean {
  return readDate(text, 'day-first').ok || readDate(text, 'month-first').ok;
}

function isLikeCompactDate(text: string): boolean {
  return /^(19|20)\d{6}$/.test(text) && readDate(text).ok;
}

/** How often each kind was seen in a field. */
export type KindCounts = Partial<Record<ValueKind, number>>;

/** The share of values that must look alike before a field is said to hold that. */
const MOSTLY = 0.9;
/** What also counts as the kind: a whole number among amounts, a word among messages. */
const FITS_TOO: Partial<Record<ValueKind, readonly ValueKind[]>> = {
  decimal: ['whole-number'],
  money: ['whole-number', 'decimal'],
  'date-time': ['date'],
  phone: ['whole-number', 'decimal'],
  // One choice of several arrives as what it is.
  list: VALUE_KINDS,
  'long-text': ['text', 'country', 'yes-no', 'whole-number', 'decimal', 'date', 'email', 'web'],
  text: VALUE_KINDS,
};

/** What a field holds, by what its values look like; words for yes and no tell nothing beside other words. */
export function fieldKind(counts: KindCounts): ValueKind {
  const all = Object.values(counts).reduce((sum, count) => sum + count, 0);
  if (!all) return 'text';
  if (counts['long-text']) return 'long-text';
  for (const kind of VALUE_KINDS) {
    const own = counts[kind] ?? 0;
    const fitting = (FITS_TOO[kind] ?? []).reduce((sum, other) => sum + (counts[other] ?? 0), own);
    if (own > 0 && own >= all * 0.2 && fitting >= all * MOSTLY) return kind;
  }
  return 'text';
}

/** Kinds between which values go to and fro without anything having changed. */
export function kindFamily(kind: ValueKind): string {
  switch (kind) {
    case 'money':
    case 'whole-number':
    case 'decimal':
      return 'number';
    case 'date':
    case 'date-time':
      return 'date';
    case 'country':
    case 'id':
    case 'list':
    case 'long-text':
    case 'text':
      return 'text';
    default:
      return kind;
  }
}

/** The type of record field that values of a kind fit best. */
export function fieldTypeOf(kind: ValueKind): FieldType {
  switch (kind) {
    case 'list':
      return 'several-of';
    case 'country':
    case 'id':
      return 'text';
    default:
      return kind;
  }
}
