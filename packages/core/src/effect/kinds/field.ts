import { z } from '../../schema-library';
import { fieldOf, recordWord } from '../../destination/destination';
import type { FollowUp } from '../../definition/route-definition';
import { fixedText } from '../../definition/fixed-text';
import { condition, name, value } from '../../definition/shapes';
import { optionFor } from '../../field/field-value';
import type { Value } from '../../value/value';
import { defineEffect, type EffectSurroundings } from '../effect';

interface FieldFollowUp extends FollowUp {
  do: 'field';
  on: string;
  field: string;
  value: Value;
}

/** Sets one field of a record once all is written: a status, say, under a condition of its own. */
export const field = defineEffect<FieldFollowUp>({
  do: 'field',
  label: 'Field',
  description: 'Sets a field of the record, such as a status, to a fixed value or to an answer.',
  shape: z.strictObject({
    do: z.literal('field'),
    on: name,
    field: name,
    value,
    when: condition.optional(),
  }) as unknown as z.ZodType<FieldFollowUp>,
  example: {
    settings: { do: 'field', on: 'person', field: 'job_title', value: { parts: [{ text: 'Head gardener' }] } },
    words: 'Job title of the contact becomes “Head gardener”',
  },
  withValues: (settings, change) => ({ ...settings, value: change(settings.value, ['value']) }),
  check(settings, around) {
    const found = meant(settings, around);
    if (!found) return [];
    const { definition, write } = found;
    if (!definition)
      return [
        {
          code: 'unknown-field',
          text: settings.field ? `A ${write.record} has no field “${settings.field}”.` : 'Say which field is set.',
          way: ['field'],
        },
      ];
    if (definition.kept)
      return [
        { code: 'kept-field', text: `${definition.label} is kept by Hay Cart and cannot be set.`, way: ['field'] },
      ];
    const text = fixedText(settings.value);
    if (!settings.value.parts.length)
      return [{ code: 'no-part', text: `Say what ${definition.label} becomes.`, way: ['value'] }];
    if (text !== null && definition.options && !optionFor(definition.options, text))
      return [
        {
          code: 'unknown-option',
          text: `${definition.label} has no option “${text}”.`,
          way: ['value', 'parts', 0, 'text'],
        },
      ];
    return [];
  },
  describe(settings, around) {
    const found = meant(settings, around);
    const label = found?.definition?.label ?? settings.field;
    const text = fixedText(settings.value);
    const option = text === null ? undefined : found?.definition?.options?.find(({ key }) => key === text);
    const becomes = text === null ? 'what was answered' : `“${option?.label ?? text}”`;
    return `${label} of the ${found ? recordWord(around.destination, found.write.record) : settings.on} becomes ${becomes}`;
  },
  plan(settings, { record, destination, fillIn }) {
    if (!record) return { words: 'Field' };
    const label = fieldOf(destination, record.kind, settings.field)?.label ?? settings.field;
    const words = `${label} of the ${recordWord(destination, record.kind)}`;
    const { value: filled, problems } = fillIn(settings.field, settings.value);
    return { words, problems, ...(filled === null ? {} : { changes: { [settings.field]: filled } }) };
  },
  adopt: (settings, adopt) => ({ ...settings, field: adopt('field', settings.field) }),
});

function meant({ on, field: key }: FieldFollowUp, { route, destination }: EffectSurroundings) {
  const write = route.writes.find(({ as }) => as === on);
  return write && { write, definition: fieldOf(destination, write.record, key) };
}
