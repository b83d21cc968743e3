import { isMoney, type FieldValue } from '../diff/record';
import { normalEmail } from '../reading/email';
import { normalPhone, showPhone } from '../reading/phone';
import { yesOrNo } from '../reading/yes-no-words';
import { error, type Problem } from '../problem';
import { shorten } from '../text';
import type { FieldDefinition, FieldOption } from './field-definition';
import { formatMoney, plainDecimal, readMoney } from '../reading/money';

/** A value that fits its field (`null`: blank), or why it does not. */
export type ReadFieldValue = { value: FieldValue | null; problem?: undefined } | { value: null; problem: Problem };

/** How a phone number without a country code, and an amount without a currency, are read. */
export interface ValueDefaults {
  defaultCountry: string;
  defaultCurrency: string;
}

/** The most characters a text field holds. Long text holds more; neither is ever cut silently. */
export const TEXT_LIMITS = { text: 1_000, longText: 100_000 } as const;

/** Turns text into a value of the field's type; text that does not fit is a problem, never a guess. */
export function readFieldValue(field: FieldDefinition, text: string, defaults: ValueDefaults): ReadFieldValue {
  if (text === '') return { value: null };
  switch (field.type) {
    case 'email': {
      const result = normalEmail(text);
      return result.ok ? { value: result.email } : refused(result.problem);
    }
    case 'phone': {
      const result = normalPhone(text, defaults.defaultCountry);
      return result.ok ? { value: result.phone } : refused(result.problem);
    }
    case 'text':
    case 'web':
      return text.length <= TEXT_LIMITS.text ? { value: text } : tooLong(field, text, TEXT_LIMITS.text);
    case 'long-text':
      return text.length <= TEXT_LIMITS.longText ? { value: text } : tooLong(field, text, TEXT_LIMITS.longText);
    case 'whole-number':
      return /^[+-]?\d+$/.test(text) && Number.isSafeInteger(Number(text))
        ? { value: Number(text) }
        : misfit(field, text, 'a whole number');
    case 'decimal': {
      const plain = plainDecimal(text.replace(/^[+-]/, ''));
      return plain === null
        ? misfit(field, text, 'a number')
        : { value: text.startsWith('-') ? -Number(plain) : Number(plain) };
    }
    case 'money': {
      const money = readMoney(text, defaults.defaultCurrency);
      return money ? { value: money } : misfit(field, text, 'an amount of money');
    }
    case 'date':
      return isDate(text) ? { value: text } : misfit(field, text, 'a date such as 2026-03-14');
    case 'date-time': {
      const time = /^\d{4}-\d{2}-\d{2}T/.test(text) ? Date.parse(text) : NaN;
      return Number.isNaN(time)
        ? misfit(field, text, 'a date and time such as 2026-03-14T09:30:00Z')
        : { value: new Date(time).toISOString() };
    }
    case 'yes-no': {
      const said = yesOrNo(text);
      return said === null ? misfit(field, text, 'yes or no') : { value: said };
    }
    case 'one-of':
    case 'person': {
      const option = optionFor(field.options ?? [], text);
      return option ? { value: option.key } : misfit(field, text, 'one of its options');
    }
    case 'several-of': {
      const words = text
        .split(/[\n;,]/)
        .map((word) => word.trim())
        .filter(Boolean);
      const options = words.map((word) => (field.options ? optionFor(field.options, word)?.key : word));
      const unknown = words.find((_, index) => options[index] === undefined);
      return unknown === undefined
        ? { value: [...new Set(options as string[])] }
        : misfit(field, unknown, 'one of its options');
    }
  }
}

/** The option that a text means: by key, label or alias, whatever the case. */
export function optionFor(options: readonly FieldOption[], text: string): FieldOption | undefined {
  const wanted = text.trim().toLowerCase();
  return options.find(
    (option) =>
      !option.retired &&
      [option.key, option.label, ...(option.aliases ?? [])].some((name) => name.toLowerCase() === wanted),
  );
}

/** A value as people read it: labels for options, money with its currency, phones with their spaces. */
export function showFieldValue(field: FieldDefinition | undefined, value: FieldValue | null): string {
  if (value === null) return '';
  if (isMoney(value)) return formatMoney(value);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (field && holdsPhones(field)) return [value].flat().map(String).map(showPhone).join(', ');
  const label = (key: string) => field?.options?.find((option) => option.key === key)?.label ?? key;
  if (Array.isArray(value)) return value.map(label).join(', ');
  return typeof value === 'string' ? label(value) : String(value);
}

function holdsPhones({ type, builtIn, key }: FieldDefinition): boolean {
  return type === 'phone' || (builtIn && key === 'phones');
}

function isDate(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const time = Date.parse(`${text}T00:00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().startsWith(text);
}

function refused(problem: Problem | undefined): ReadFieldValue {
  return problem ? { value: null, problem } : { value: null };
}

function misfit(field: FieldDefinition, text: string, wanted: string): ReadFieldValue {
  return {
    value: null,
    problem: error('value-does-not-fit', `“${shorten(text, 60)}” does not fit ${field.label}, which holds ${wanted}.`),
  };
}

function tooLong(field: FieldDefinition, text: string, most: number): ReadFieldValue {
  return {
    value: null,
    problem: error(
      'value-too-long',
      `The value for ${field.label} has ${text.length} characters; the field holds at most ${most}.`,
    ),
  };
}
