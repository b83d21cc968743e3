import { jsonPointer } from '../json';
import { error, type Problem } from '../problem';
import type { FieldDefinition, FieldOption } from './field-definition';

/** The most characters and things of a field. */
export const FIELD_LIMITS = { label: 100, help: 500, options: 5_000, fields: 500 } as const;

/** What is wrong with a field as it would be kept, among the other fields of its record. */
export function checkField(field: FieldDefinition, others: readonly FieldDefinition[]): Problem[] {
  const own = others.filter(({ record, key }) => record === field.record && key !== field.key);
  const problems: Problem[] = [];
  if (field.label.trim() === '') problems.push(error('label-blank', 'A field needs a label.', '/label'));
  if (field.label.length > FIELD_LIMITS.label)
    problems.push(error('label-too-long', `A label has at most ${FIELD_LIMITS.label} characters.`, '/label'));
  const same = own.find(({ label }) => plain(label) === plain(field.label));
  if (same)
    problems.push(
      error(
        'label-taken',
        `The ${field.record} has a field “${same.label}” already. Two of one name would be mixed up.`,
        '/label',
      ),
    );
  if ((field.help?.length ?? 0) > FIELD_LIMITS.help)
    problems.push(error('help-too-long', `A help text has at most ${FIELD_LIMITS.help} characters.`, '/help'));
  if (own.length >= FIELD_LIMITS.fields)
    problems.push(error('too-many-fields', `A ${field.record} has at most ${FIELD_LIMITS.fields} fields.`));
  if ((field.group?.length ?? 0) > FIELD_LIMITS.label)
    problems.push(
      error('group-too-long', `The name of a group has at most ${FIELD_LIMITS.label} characters.`, '/group'),
    );
  if (field.unique && !canBeUnique(field))
    problems.push(error('cannot-be-unique', `${field.label} cannot be unique: many records hold the same.`, '/unique'));
  return [...problems, ...checkOptions(field)];
}

/** Whether it makes sense that no two records hold the same value of a field. */
export function canBeUnique({ type, builtIn }: Pick<FieldDefinition, 'type' | 'builtIn'>): boolean {
  return !builtIn && ['text', 'whole-number', 'email', 'phone', 'web'].includes(type);
}

/** Whether a type of field has a list of options. */
export function hasOptions({ type }: Pick<FieldDefinition, 'type'>): boolean {
  return type === 'one-of' || type === 'several-of';
}

function checkOptions(field: FieldDefinition): Problem[] {
  const { options } = field;
  if (!hasOptions(field))
    return options ? [error('options-do-not-fit', `Only lists have options; ${field.label} is none.`, '/options')] : [];
  if (!options?.some(({ retired }) => !retired))
    return [error('no-option', `${field.label} needs an option to choose.`, '/options')];
  if (options.length > FIELD_LIMITS.options)
    return [error('too-many-options', `A list has at most ${FIELD_LIMITS.options} options.`, '/options')];
  return checkNames(options);
}

/** Every name means one option: labels and aliases are what forms may send. */
function checkNames(options: readonly FieldOption[]): Problem[] {
  const problems: Problem[] = [];
  const meant = new Map<string, number>();
  options.forEach((option, index) => {
    const names = [option.label, ...(option.aliases ?? [])];
    names.forEach((name, place) => {
      const at = jsonPointer(place === 0 ? ['options', index, 'label'] : ['options', index, 'aliases', place - 1]);
      if (name.trim() === '') problems.push(error('option-blank', 'An option needs a name.', at));
      else if (name.length > FIELD_LIMITS.label)
        problems.push(
          error('option-too-long', `The name of an option has at most ${FIELD_LIMITS.label} characters.`, at),
        );
      else if (meant.has(plain(name)) && meant.get(plain(name)) !== index)
        problems.push(
          error('option-ambiguous', `“${name}” means ${options[meant.get(plain(name))!]!.label} already.`, at),
        );
      else meant.set(plain(name), index);
    });
  });
  return problems;
}

function plain(name: string): string {
  return name.trim().toLowerCase();
}
