import { checkFieldValue } from '../destination/check-value';
import { fieldOf, type Destination } from '../destination/destination';
import { sameValue } from '../diff/record';
import type { RecordsDiff } from '../diff/records-diff';
import type { JsonValue } from '../json';

/** Leaves out what could only be given back as a value that its field does not hold any more, since it has another type. */
export function withoutMisfits(diff: RecordsDiff, destination: Destination): RecordsDiff {
  const changed: RecordsDiff['changed'] = {};
  for (const [id, { kind, fields }] of Object.entries(diff.changed)) {
    const fitting = Object.entries(fields).filter(([key, { before }]) => {
      const field = fieldOf(destination, kind, key);
      if (before === null || !field || field.builtIn) return before === null || field !== undefined;
      return sameValue(checkFieldValue(field, before as JsonValue, destination).value, before);
    });
    if (fitting.length) changed[id] = { kind, fields: Object.fromEntries(fitting) };
  }
  return { ...diff, changed };
}
