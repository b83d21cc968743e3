import { fieldOf, type Destination } from '../destination/destination';
import type { RecordKind } from '../diff/record';
import type { Submission } from '../route/submission';

/** Somebody whom a route names: a person, or somebody of a team, each of whom gets the same share over many submissions. */
export type NamedOwner = { person: string } | { team: string };

/** Who looks after what a route writes. A record that has an owner keeps it. */
export type OwnerRule =
  | NamedOwner
  /** The colleague who entered it, and somebody else for what nobody here entered. */
  | { enteredBy: true; otherwise?: NamedOwner | undefined };

/** The person or team that an owner rule names, if it names any. */
export function namedOwner(rule: OwnerRule): NamedOwner | null {
  return 'enteredBy' in rule ? (rule.otherwise ?? null) : rule;
}

/** The key of the person who gets a record, or `null` when nobody can: the person or team is gone, or nobody is active. */
export function chooseOwner(
  rule: OwnerRule,
  record: RecordKind,
  { id, visit }: Pick<Submission, 'id' | 'visit'>,
  destination: Destination,
): string | null {
  const people = fieldOf(destination, record, 'owner')?.options ?? [];
  const isActive = (key: string) => people.some((person) => person.key === key && !person.retired);
  if ('enteredBy' in rule && visit.enteredBy && isActive(visit.enteredBy)) return visit.enteredBy;
  const named = namedOwner(rule);
  if (!named) return null;
  if ('person' in named) return isActive(named.person) ? named.person : null;
  const able = (destination.teams?.[named.team] ?? []).filter(isActive).sort();
  return able.length ? able[shareOf(id) % able.length]! : null;
}

/** A number that is spread evenly over submissions and always the same for one (FNV-1a, 32 bit). */
function shareOf(id: string): number {
  let hash = 0x811c9dc5;
  for (let at = 0; at < id.length; at++) hash = Math.imul(hash ^ id.charCodeAt(at), 0x01000193);
  return (hash ^ (hash >>> 15)) >>> 0;
}
