import { fieldOf, type Destination } from '../../destination/destination';
import type { FieldValues } from '../../diff/record';
import type { Write } from '../../definition/route-definition';
import { identityKeysOf, isExclusive, isShareable } from '../../identity/keys';
import type { KnownRecords } from '../../identity/known-records';
import { listInWords } from '../../text';
import type { Plan, Reason } from './plan';
import type { FilledValue } from './plan-fields';

/**
 * Why a record cannot be identified as its values say: another goes by the same. `null` where none does. A mailbox is one that
 * several people use once somebody said that its next user is another person.
 */
export function takenKey(
  write: Write,
  id: string,
  values: FieldValues,
  known: KnownRecords,
  destination: Destination,
  { merged = [], anotherPerson = false }: { merged?: readonly string[] | undefined; anotherPerson?: boolean } = {},
): Reason | null {
  for (const key of identityKeysOf(write.record, values, known.uniques)) {
    if (!isExclusive(key)) continue;
    const owners = known.withKey(key).filter((other) => other.kind === write.record && !merged.includes(other.id));
    if (!owners.some((other) => other.id !== id)) continue;
    if (isShareable(key) && (anotherPerson || owners.length > 1)) continue;
    const field = key.kind.startsWith('field:') ? fieldOf(destination, write.record, key.kind.slice(6)) : undefined;
    const text = field
      ? `Another ${write.record} has the ${field.label} ${key.value} already, and no two may have the same.`
      : `Another ${write.record} has the ${key.kind} ${key.value} already, and the route does not recognise by ${key.kind}. Add that to Recognise on the route sheet, publish, and run this again.`;
    return { code: 'identity-taken', text };
  }
  return null;
}

/** Why the run waits for a person, beginning with the name of the field. */
export function holdReason(write: Write, { fill: { field }, hold }: FilledValue, destination: Destination): Reason {
  const { code, text, value } = hold!;
  const label = fieldOf(destination, write.record, field)?.label ?? field;
  const about = value === undefined ? {} : { about: { as: write.as, field, value } };
  return { code, text: `${label}: ${text}`, ...about };
}

export function unknownField(write: Write, field: string): Reason {
  return {
    code: 'unknown-field',
    text: `The route feeds the field “${field}” of the ${write.record}, which does not exist any more. Change the mapping, publish, and run this again.`,
  };
}

export function nothingFits(write: Write, problems: Plan['problems']): Reason {
  const why = problems.map(({ text }) => text).join(' ');
  return {
    code: 'nothing-fits',
    text: `Nothing that was given for the ${write.record} can be used. ${why}`,
  };
}

export function blankField(write: Write, fields: string[], destination: Destination): Reason {
  const labels = fields.map((key) => fieldOf(destination, write.record, key)?.label ?? key);
  const are = labels.length === 1 ? 'is' : 'are';
  return {
    code: 'required-blank',
    text: `${listInWords(labels)} ${are} needed for the ${write.record}, and the submission gave nothing that fits.`,
  };
}
