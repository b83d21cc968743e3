import type { FieldDefinition, FieldOption } from './field-definition';

/** What a workspace has to choose from beside the options of its own fields. */
export interface Choices {
  people: readonly { key: string; name: string; email: string; active: boolean }[];
  tags: readonly FieldOption[];
  lists: readonly FieldOption[];
}

/**
 * Fields with everything that can be chosen in them: people in fields of type person, the workspace's tags and lists. So
 * a condition, a form and a record's page all offer and show the same.
 */
export function withChoices<Field extends FieldDefinition>(fields: readonly Field[], choices: Choices): Field[] {
  const people = choices.people.map(({ key, name, email, active }): FieldOption => ({
    key,
    label: name,
    aliases: [email],
    ...(active ? {} : { retired: true }),
  }));
  return fields.map((field) => {
    if (field.type === 'person') return { ...field, options: people };
    if (field.builtIn && field.key === 'tags') return { ...field, options: [...choices.tags] };
    if (field.builtIn && field.key === 'lists') return { ...field, options: [...choices.lists] };
    return field;
  });
}
