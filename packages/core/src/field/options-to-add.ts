import { FIELD_LIMITS } from './check-field';
import type { FieldDefinition } from './field-definition';
import { optionFor } from './field-value';
import { newKey } from './new-key';

/**
 * The options that a field does not have yet, each with the key that it gets. Texts that are too long for one, and those that
 * a full list has no room for, are left out.
 */
export function optionsToAdd(field: FieldDefinition, labels: readonly string[]): { key: string; label: string }[] {
  if (field.type !== 'one-of' && field.type !== 'several-of') return [];
  const added: { key: string; label: string }[] = [];
  for (const label of labels) {
    const options = [...(field.options ?? []), ...added];
    const full = options.length >= FIELD_LIMITS.options || label.length > FIELD_LIMITS.label;
    if (full || optionFor(options, label)) continue;
    added.push({
      key: newKey(
        label,
        options.map(({ key }) => key),
        '_',
      ),
      label,
    });
  }
  return added;
}
