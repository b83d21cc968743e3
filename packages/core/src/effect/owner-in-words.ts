import { decidedOwner, namedOwner, type OwnerRule, type PersonOwner, type TeamOwner } from '../assignment/choose-owner';
import { fieldOf, type Destination } from '../destination/destination';
import type { RecordKind } from '../diff/record';
import type { FieldOption } from '../field/field-definition';
import { listInWords } from '../text';

/** Whom an owner rule means: `Robin Nye`, `somebody of the team Design`. */
export function ownerInWords(rule: OwnerRule, record: RecordKind, destination: Destination): string {
  const named = namedOwner(rule);
  const decided = decidedOwner(rule);
  const people = fieldOf(destination, record, 'owner')?.options ?? [];
  const whom = decided
    ? `whom the table ${decided.decision} names as ${decided.output}`
    : named && ('person' in named ? personInWords(named, people) : teamInWords(named, record, destination));
  return 'enteredBy' in rule ? `the colleague who enters it${whom ? `, otherwise ${whom}` : ''}` : whom!;
}

function personInWords({ person, standIn }: PersonOwner, people: readonly FieldOption[]): string {
  const name = (key: string) => people.find((one) => one.key === key)?.label ?? key;
  return standIn === undefined ? name(person) : `${name(person)}, or ${name(standIn)} while they are away`;
}

function teamInWords(
  { team, keep = [], atWork, by, capacity, perDay, notTwice, speaks, skills = [], shares, otherwise }: TeamOwner,
  record: RecordKind,
  destination: Destination,
): string {
  const people = fieldOf(destination, record, 'owner')?.options ?? [];
  const words = `somebody of the team ${destination.teams?.[team]?.name ?? team}`;
  return [
    keep.length ? `whoever looks after the ${listInWords(keep, 'or')} already, otherwise ${words}` : words,
    ...(speaks === undefined ? [] : [`who speaks ${speaks}`]),
    ...(skills.length ? [`who knows ${listInWords(skills, 'and')}`] : []),
    ...(by === 'load' ? ['the least loaded'] : []),
    ...(by === 'tasks' ? ['with the fewest tasks'] : []),
    ...(by === 'worth' ? ['with the least value in open deals'] : []),
    ...(capacity ? ['with room for more'] : []),
    ...(perDay ? ['with room for more that day'] : []),
    ...(notTwice ? ['never twice in a row'] : []),
    ...(shares ? ['by shares'] : []),
    ...(atWork ? ['at work first'] : []),
    ...(otherwise
      ? [`and ${people.find(({ key }) => key === otherwise)?.label ?? otherwise} when none of them can`]
      : []),
  ].join(', ');
}
