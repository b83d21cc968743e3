import type { Destination } from '../destination/destination';
import type { FieldDefinition } from '../field/field-definition';
import {
  isQuestion,
  questionsOf,
  type FormDefinition,
  type FormItem,
  type Question,
  type QuestionTypeName,
} from './definition';

/** How a field is asked for, by its type; `null` where a visitor cannot be asked. */
export function questionTypeFor({ type }: Pick<FieldDefinition, 'type'>): QuestionTypeName | null {
  return type === 'person' || type === 'date-time' ? null : type;
}

/** The fields that a form can ask for: not those that Hay Cart keeps itself, and not the source, which the visit tells. */
export function askableFields<Field extends FieldDefinition>(fields: readonly Field[]): Field[] {
  return fields.filter(
    (field) => !field.kept && !(field.builtIn && field.key === 'source') && questionTypeFor(field) !== null,
  );
}

/**
 * A question that asks for a field and follows it: without words and options of its own it has those of the field,
 * whatever they become.
 */
export function questionFor(
  field: FieldDefinition,
  name: string,
  { defaultCountry, defaultCurrency }: Partial<Pick<Destination, 'defaultCountry' | 'defaultCurrency'>> = {},
): Question {
  return {
    name,
    type: questionTypeFor(field) ?? 'text',
    label: '',
    ...(field.required ? { required: true } : {}),
    ...(field.type === 'phone' && defaultCountry ? { country: defaultCountry } : {}),
    ...(field.type === 'money' && defaultCurrency ? { currency: defaultCurrency } : {}),
    feeds: { record: field.record, field: field.key },
  };
}

/** Whether a form asks for a field. */
export function asksForField(
  form: Pick<FormDefinition, 'items'>,
  { record, key }: Pick<FieldDefinition, 'record' | 'key'>,
): boolean {
  return questionsOf(form).some(({ feeds }) => feeds?.record === record && feeds.field === key);
}

/** A form whose questions have what they follow: label, type and options of the fields that they ask for. */
export function followFields(form: FormDefinition, fields: readonly FieldDefinition[]): FormDefinition {
  return { ...form, items: form.items.map((item) => followField(item, fields)) };
}

function followField(item: FormItem, fields: readonly FieldDefinition[]): FormItem {
  if (!isQuestion(item) || !item.feeds) return item;
  const { record, field: key } = item.feeds;
  const field = fields.find((one) => one.record === record && one.key === key);
  if (!field) return item.label ? item : { ...item, label: key };
  const type = item.type === 'hidden' || item.type === 'consent' ? item.type : (questionTypeFor(field) ?? item.type);
  return {
    ...item,
    type,
    label: item.label || field.label,
    ...(field.options && (type === 'one-of' || type === 'several-of')
      ? {
          options: field.options
            .filter(({ retired }) => !retired)
            .map((option) => ({
              value: option.key,
              label: item.options?.find(({ value }) => value === option.key)?.label ?? option.label,
            })),
        }
      : {}),
  };
}
