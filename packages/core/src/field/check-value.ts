import type { FieldValue } from '../diff/record';
import { isMoney } from '../diff/record';
import type { JsonValue } from '../json';
import { error } from '../problem';
import type { FieldDefinition } from './field-definition';
import { readFieldValue, type ReadFieldValue, type ValueDefaults } from './field-value';

/**
 * Checks a value that somebody gives a field: already of the field's own type, as the API answers it, or as text that
 * can be read as such. `null` and `''` are blank. A value that does not fit is a problem, never a guess.
 */
export function checkFieldValue(field: FieldDefinition, given: JsonValue, defaults: ValueDefaults): ReadFieldValue {
  if (given === null || given === '') return { value: null };
  if (Array.isArray(given)) return checkList(field, given, defaults);
  if (field.type === 'several-of')
    return typeof given === 'string' ? checkList(field, [given], defaults) : misfit(field);
  if (typeof given === 'string') return readFieldValue(field, given, defaults);
  return hasTypeOf(field, given) ? { value: given as FieldValue } : misfit(field);
}

function hasTypeOf({ type }: FieldDefinition, given: JsonValue): boolean {
  switch (type) {
    case 'whole-number':
      return Number.isSafeInteger(given);
    case 'decimal':
      return Number.isFinite(given);
    case 'yes-no':
      return typeof given === 'boolean';
    case 'money':
      return (
        isMoney(given) &&
        Object.keys(given).length === 2 &&
        Number.isSafeInteger(given.amount) &&
        /^[A-Z]{3}$/.test(given.currency)
      );
    default:
      return false;
  }
}

/** Each of a list by itself, so that a comma inside one does not divide it; what stands twice is taken once. */
function checkList(field: FieldDefinition, given: readonly JsonValue[], defaults: ValueDefaults): ReadFieldValue {
  if (field.type !== 'several-of') return misfit(field);
  const values: string[] = [];
  for (const one of given) {
    if (typeof one !== 'string') return misfit(field);
    const read = readFieldValue(oneOfList(field), one, defaults);
    if (read.problem) return read;
    if (typeof read.value === 'string' && !values.includes(read.value)) values.push(read.value);
  }
  return { value: values.length ? values : null };
}

/** What one of the values of a list must be. */
function oneOfList(field: FieldDefinition): FieldDefinition {
  if (field.options) return { ...field, type: 'one-of' };
  const type =
    field.builtIn && field.key === 'emails' ? 'email' : field.builtIn && field.key === 'phones' ? 'phone' : 'text';
  return { ...field, type };
}

function misfit(field: FieldDefinition): ReadFieldValue {
  return {
    value: null,
    problem: error('value-does-not-fit', `The value does not fit ${field.label}, which holds ${WORDS[field.type]}.`),
  };
}

const WORDS: Record<FieldDefinition['type'], string> = {
  text: 'text',
  'long-text': 'text',
  'whole-number': 'a whole number',
  decimal: 'a number',
  money: 'an amount of money with its currency',
  date: 'a date such as 2026-03-14',
  'date-time': 'a date and time such as 2026-03-14T09:30:00Z',
  'yes-no': 'yes or no',
  'one-of': 'one of its options',
  'several-of': 'some of its options',
  email: 'an e-mail address',
  phone: 'a phone number',
  web: 'a web address',
  person: 'one of the people',
};
