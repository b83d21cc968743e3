import { fieldOf, type Destination } from '../destination/destination';
import type { RecordKind } from '../diff/record';
import { POSTED } from '../source/origin';
import type { Submission } from '../payload/submission';
import type { Counters } from './counters';

/** Somebody whom a route names: a person, or somebody of a team, who take turns. */
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

/** The counter of whose turn it is in a team. */
export function turnOf(team: string): string {
  return `turn ${team}`;
}

/** The counter that decides who gets a record, where one does. */
export function turnFor(
  rule: OwnerRule,
  record: RecordKind,
  { origin = POSTED }: Pick<Submission, 'origin'>,
  destination: Destination,
): string | null {
  if ('enteredBy' in rule && isActive(origin.enteredBy, record, destination)) return null;
  const named = namedOwner(rule);
  return named && 'team' in named ? turnOf(named.team) : null;
}

/**
 * The key of the person who gets a record, or `null` when nobody can: the person or team is gone, or nobody is active. In a
 * team those who are active take turns, in the order of their keys.
 */
export function chooseOwner(
  rule: OwnerRule,
  record: RecordKind,
  { origin = POSTED }: Pick<Submission, 'origin'>,
  destination: Destination,
  counters: Counters,
): string | null {
  if ('enteredBy' in rule && isActive(origin.enteredBy, record, destination)) return origin.enteredBy!;
  const named = namedOwner(rule);
  if (!named) return null;
  if ('person' in named) return isActive(named.person, record, destination) ? named.person : null;
  const able = [...(destination.teams?.[named.team]?.people ?? [])]
    .filter((key) => isActive(key, record, destination))
    .sort();
  return able.length ? able[counters.get(turnOf(named.team)) % able.length]! : null;
}

function isActive(key: string | undefined, record: RecordKind, destination: Destination): boolean {
  const people = fieldOf(destination, record, 'owner')?.options ?? [];
  return key !== undefined && people.some((person) => person.key === key && !person.retired);
}
