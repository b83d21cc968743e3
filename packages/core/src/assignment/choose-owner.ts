import { fieldOf, type Destination } from '../destination/destination';
import type { RecordKind } from '../diff/record';
import { POSTED } from '../source/origin';
import type { Submission } from '../payload/submission';
import type { Counters } from './counters';

/** Somebody whom a route names: a person, or somebody of a team, who take turns. */
export type NamedOwner = { person: string } | { team: string };

/** Whom an output of a decision table names. */
export interface DecidedOwner {
  decision: string;
  output: string;
}

/** Who looks after what a route writes. A record that has an owner keeps it. */
export type OwnerRule =
  | NamedOwner
  | DecidedOwner
  /** The colleague who entered it, and somebody else for what nobody here entered. */
  | { enteredBy: true; otherwise?: NamedOwner | DecidedOwner | undefined };

/** The same once tables have said whom they name; none where they name nobody. */
export type SettledOwner = NamedOwner | { enteredBy: true; otherwise?: NamedOwner | undefined };

/** The person or team that an owner rule names itself, if it names any. */
export function namedOwner(rule: OwnerRule): NamedOwner | null {
  const named = 'enteredBy' in rule ? rule.otherwise : rule;
  return named && !('decision' in named) ? named : null;
}

/** The output of a table that says whom an owner rule means, if one does. */
export function decidedOwner(rule: OwnerRule): DecidedOwner | null {
  const named = 'enteredBy' in rule ? rule.otherwise : rule;
  return named && 'decision' in named ? named : null;
}

/** The rule with whom its table names in the place of the table; `null` where that is nobody, and nothing else is said. */
export function settledOwner(
  rule: OwnerRule,
  ownerOf: (decided: DecidedOwner) => NamedOwner | null,
): SettledOwner | null {
  const decided = decidedOwner(rule);
  if (!decided) return rule as SettledOwner;
  const named = ownerOf(decided);
  if ('enteredBy' in rule) return { enteredBy: true, ...(named ? { otherwise: named } : {}) };
  return named;
}

/** The counter of whose turn it is in a team. */
export function turnOf(team: string): string {
  return `turn ${team}`;
}

/** The counter that decides who gets a record, where one does. */
export function turnFor(
  rule: SettledOwner,
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
  rule: SettledOwner,
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
