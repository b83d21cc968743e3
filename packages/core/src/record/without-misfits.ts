import { checkFieldValue } from '../field/check-value';
import { fieldOf, type Destination } from '../destination/destination';
import type { FieldDefinition } from '../field/field-definition';
import { sameValue, type FieldValue } from '../diff/record';
import type { RecordsDiff } from '../diff/records-diff';
import type { JsonValue } from '../json';

/**
 * Leaves out what could only be given back as a value that its field does not hold any more, since it has another type. A
 * record that was removed keeps what it has of fields that are out of use.
 */
export function withoutMisfits(diff: RecordsDiff, destination: Destination): RecordsDiff {
  const fits = (field: FieldDefinition, value: FieldValue) =>
    field.builtIn || sameValue(checkFieldValue(field, value as JsonValue, destination).value, value);
  const changed: RecordsDiff['changed'] = {};
  for (const [id, { kind, fields }] of Object.entries(diff.changed)) {
    const fitting = Object.entries(fields).filter(([key, { before }]) => {
      const field = fieldOf(destination, kind, key);
      return before === null || (field !== undefined && fits(field, before));
    });
    if (fitting.length) changed[id] = { kind, fields: Object.fromEntries(fitting) };
  }
  const removed: RecordsDiff['removed'] = {};
  for (const [id, { kind, values }] of Object.entries(diff.removed)) {
    const fitting = Object.entries(values).filter(([key, value]) => {
      const field = fieldOf(destination, kind, key);
      return field === undefined || fits(field, value);
    });
    removed[id] = { kind, values: Object.fromEntries(fitting) };
  }
  return { ...diff, changed, removed };
}
