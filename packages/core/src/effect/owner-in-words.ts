import { decidedOwner, namedOwner, type OwnerRule } from '../assignment/choose-owner';
import { fieldOf, type Destination } from '../destination/destination';
import type { RecordKind } from '../diff/record';

/** Whom an owner rule means: `Robin Nye`, `somebody of the team Design`. */
export function ownerInWords(rule: OwnerRule, record: RecordKind, destination: Destination): string {
  const named = namedOwner(rule);
  const decided = decidedOwner(rule);
  const people = fieldOf(destination, record, 'owner')?.options ?? [];
  const whom = decided
    ? `whom the table ${decided.decision} names as ${decided.output}`
    : named &&
      ('person' in named
        ? (people.find(({ key }) => key === named.person)?.label ?? named.person)
        : `somebody of the team ${destination.teams?.[named.team]?.name ?? named.team}`);
  return 'enteredBy' in rule ? `the colleague who enters it${whom ? `, otherwise ${whom}` : ''}` : whom!;
}
