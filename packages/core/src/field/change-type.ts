import type { FieldValue } from '../diff/record';
import { checkFieldValue } from './check-value';
import type { FieldDefinition, FieldOption, FieldType } from './field-definition';
import { showFieldValue, type ValueDefaults } from './field-value';
import { newKey } from './new-key';

/** A value that records hold, and how many of them do. */
export interface HeldValue {
  value: FieldValue;
  count: number;
}

/** What becomes of the values of a field that gets another type. */
export interface TypeChange {
  field: FieldDefinition;
  /** For each value held what it becomes; `null` where it does not fit. */
  becomes: { from: FieldValue; to: FieldValue | null; count: number }[];
}

/**
 * The field with another type, and what becomes of the values held. A value is read as people read it, by the rules of
 * the new type; what does not fit is told, never guessed. A list gets an option for each of the texts held.
 */
export function changeType(
  field: FieldDefinition,
  type: FieldType,
  held: readonly HeldValue[],
  defaults: ValueDefaults,
  people: readonly FieldOption[] = [],
): TypeChange {
  const { options: before, unique: _, ...rest } = field;
  const options = optionsFor(field, type, held, before, people);
  const after: FieldDefinition = { ...rest, type, ...(options ? { options } : {}) };
  return {
    field: after,
    becomes: held.map(({ value, count }) => ({ from: value, to: converted(field, after, value, defaults), count })),
  };
}

function converted(
  before: FieldDefinition,
  after: FieldDefinition,
  value: FieldValue,
  defaults: ValueDefaults,
): FieldValue | null {
  if (after.type === 'several-of') {
    const words = Array.isArray(value)
      ? value.map((one) => showFieldValue(before, one))
      : [showFieldValue(before, value)];
    return checkFieldValue(after, words, defaults).value;
  }
  if (Array.isArray(value) && value.length > 1 && !TEXTS.has(after.type)) return null;
  if (after.type === 'date' && before.type === 'date-time') return String(value).slice(0, 10);
  if (after.type === 'date-time' && before.type === 'date') return `${String(value)}T00:00:00.000Z`;
  if (after.type === 'money' && typeof value === 'number') return checkFieldValue(after, String(value), defaults).value;
  return checkFieldValue(after, showFieldValue(before, value), defaults).value;
}

const TEXTS: ReadonlySet<FieldType> = new Set(['text', 'long-text']);

function optionsFor(
  field: FieldDefinition,
  type: FieldType,
  held: readonly HeldValue[],
  before: readonly FieldOption[] | undefined,
  people: readonly FieldOption[],
): FieldOption[] | undefined {
  if (type === 'person') return [...people];
  if (type !== 'one-of' && type !== 'several-of') return undefined;
  if (before && field.type !== 'person') return [...before];
  const words = new Map<string, string>();
  for (const { value } of held)
    for (const word of [value].flat().map((one) => showFieldValue(field, one as FieldValue).trim()))
      if (word !== '' && !words.has(word.toLowerCase())) words.set(word.toLowerCase(), word);
  const keys: string[] = [];
  return [...words.values()].sort().map((label) => {
    const key = newKey(label, keys);
    keys.push(key);
    return { key, label };
  });
}
