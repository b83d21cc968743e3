import { isMoney, type FieldValue } from '../diff/record';
import { plainDecimal } from '../reading/money';

/**
 * What every test comes down to. There are few of them, so that the database can be asked the same as the core answers:
 * `meets` says what each means, and a translation into SQL must agree with it.
 */
export type Comparison =
  | { of: 'blank' }
  /** The text is, holds, begins or ends with one of those wanted; capitals count only when asked for. */
  | { of: 'text'; how: 'equals' | 'contains' | 'starts' | 'ends'; wanted: string[]; caseSensitive: boolean }
  /**
   * `least` and `most` belong to the range, `over` and `under` do not; amounts of money are minor units, and of one
   * currency only.
   */
  | { of: 'number'; least?: number; most?: number; over?: number; under?: number; currency?: string }
  /** ISO 8601 dates or times in UTC: from the first on, up to but without the second. */
  | { of: 'time'; from?: string; before?: string }
  | { of: 'yes-no'; wanted: boolean }
  /** Keys of options: the value is one of them, or a list holds one or all of them. */
  | { of: 'options'; how: 'any' | 'all'; wanted: string[] };

export type NumberComparison = Extract<Comparison, { of: 'number' }>;

/** A comparison, or its opposite. A blank value meets no comparison but `blank`, and so every opposite. */
export interface Compared {
  comparison: Comparison;
  not: boolean;
}

/** Whether a value meets what it is compared with. */
export function meets({ comparison, not }: Compared, value: FieldValue | null): boolean {
  return meetsPlain(comparison, value) !== not;
}

function meetsPlain(comparison: Comparison, value: FieldValue | null): boolean {
  const blank = value === null || value === '' || (Array.isArray(value) && value.length === 0);
  if (comparison.of === 'blank' || blank) return comparison.of === 'blank' && blank;
  switch (comparison.of) {
    case 'text':
      return textsOf(value).some((text) => meetsText(comparison, text));
    case 'number':
      return meetsNumber(comparison, value);
    case 'time': {
      if (typeof value !== 'string') return false;
      const { from = '', before } = comparison;
      return value >= from && (before === undefined || value < before);
    }
    case 'yes-no':
      return value === comparison.wanted;
    case 'options': {
      const held = textsOf(value);
      return comparison.how === 'any'
        ? comparison.wanted.some((key) => held.includes(key))
        : comparison.wanted.every((key) => held.includes(key));
    }
  }
}

function textsOf(value: FieldValue): string[] {
  if (Array.isArray(value)) return value;
  return [isMoney(value) ? `${value.amount} ${value.currency}` : String(value)];
}

function meetsText({ how, wanted, caseSensitive }: Extract<Comparison, { of: 'text' }>, text: string): boolean {
  const plain = caseSensitive ? text : foldCase(text);
  return wanted.some((one) => {
    const other = caseSensitive ? one : foldCase(one);
    switch (how) {
      case 'equals':
        return plain === other;
      case 'contains':
        return plain.includes(other);
      case 'starts':
        return plain.startsWith(other);
      case 'ends':
        return plain.endsWith(other);
    }
  });
}

function meetsNumber(
  { least = -Infinity, most = Infinity, over = -Infinity, under = Infinity, currency }: NumberComparison,
  value: FieldValue,
): boolean {
  const number = numberIn(value, currency);
  return number !== null && number >= least && number <= most && number > over && number < under;
}

function numberIn(value: FieldValue, currency: string | undefined): number | null {
  if (isMoney(value)) return currency === undefined || value.currency === currency ? value.amount : null;
  if (currency !== undefined) return null;
  if (typeof value === 'number') return value;
  if (typeof value !== 'string') return null;
  const plain = plainDecimal(value.trim().replace(/^-/, ''));
  if (plain === null) return null;
  return value.trim().startsWith('-') ? -Number(plain) : Number(plain);
}

/** A text without its capitals. The locale plays no part, so that every machine folds alike. */
export function foldCase(text: string): string {
  return text.toLowerCase();
}
