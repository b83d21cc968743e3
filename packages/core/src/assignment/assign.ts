import { fieldOf, type Destination } from '../destination/destination';
import type { RecordKind } from '../diff/record';
import type { Submission } from '../payload/submission';
import { atWork, isAway, type Person } from '../people/person';
import { POSTED } from '../source/origin';
import { counted } from '../text';
import { loadOf, type Counters } from './counters';
import { namedOwner, turnOf, type SettledOwner, type TeamOwner } from './choose-owner';
import { turnByShares } from './shares';

/** Who gets something, and how that came about. */
export interface Assigned {
  /** The key of the person; `null` when nobody can take it. */
  person: string | null;
  /** The counter that decided it, where one did: it goes on once for the run. */
  turn: string | null;
  /** The count of what the person looks after, where it decided: one more for the run. */
  load?: string;
  /** The rest of a sentence about the person: `in turn in North`. */
  why: string;
  /** The team that it was for, where one took turns or keeps what it has. */
  team?: string;
  /** Where turns were taken: the shares of those who could have got it. */
  shares?: Readonly<Record<string, number>>;
}

/** What is known where somebody is chosen. */
export interface AssignmentGround {
  submission: Pick<Submission, 'origin' | 'receivedAt'>;
  destination: Destination;
  counters: Counters;
  /** The people who look after the contact and the company already. */
  owners?: Partial<Record<'contact' | 'company', string>> | undefined;
  /** Who is passed over, such as those who had it before. */
  without?: readonly string[] | undefined;
}

/**
 * Chooses who gets something. Nobody gets anything who is not active, or away on the day of arrival; in a team, those who
 * can take it take turns in the order of their keys.
 */
export function assign(rule: SettledOwner, record: RecordKind, ground: AssignmentGround): Assigned {
  const { submission, destination } = ground;
  const { enteredBy } = submission.origin ?? POSTED;
  if ('enteredBy' in rule && isActive(enteredBy, record, destination))
    return { person: enteredBy!, turn: null, why: 'entered it' };
  const named = namedOwner(rule);
  if (!named) return nobody('no colleague entered it');
  if ('team' in named) return fromTeam(named, record, ground);
  const { person, standIn } = named;
  const active = isActive(person, record, destination);
  if (active && !isAwayAt(person, ground)) return { person, turn: null, why: 'named by the route' };
  if (standIn !== undefined && canTake(standIn, record, ground))
    return { person: standIn, turn: null, why: `stands in for ${nameOf(person, record, destination)}` };
  // Without anybody to stand in it waits for whoever was named.
  return active
    ? { person, turn: null, why: 'named by the route, and away' }
    : nobody(`the person “${person}” is gone, or not active`);
}

function fromTeam(rule: TeamOwner, record: RecordKind, ground: AssignmentGround): Assigned {
  const { team, keep = [], shares, otherwise, by, capacity } = rule;
  const { destination, counters, submission, owners = {} } = ground;
  for (const kind of keep) {
    const owner = owners[kind];
    if (owner !== undefined && canTake(owner, record, ground))
      return { person: owner, turn: null, team, why: `looks after the ${kind} already` };
  }
  const room = (key: string) =>
    !capacity || counters.get(loadOf(key)) < (destination.people?.[key]?.capacity ?? Infinity);
  const able = (destination.teams?.[team]?.people ?? [])
    .filter((key) => canTake(key, record, ground) && room(key))
    .sort();
  const now = rule.atWork ? able.filter((key) => worksAt(key, submission.receivedAt, destination)) : able;
  const turn = turnOf(team);
  const next = (people: readonly string[]) =>
    turnByShares(by === 'load' ? leastLoaded(people, counters) : people, shares ?? {}, counters.get(turn));
  const person = next(now) ?? next(able);
  if (person !== null) {
    const name = destination.teams?.[team]?.name ?? team;
    const words =
      by === 'load'
        ? `least loaded in ${name}, with ${counted(counters.get(loadOf(person)), 'open deal')}`
        : `in turn in ${name}${shares ? ', by shares' : ''}`;
    const working = rule.atWork && now.includes(person) && now.length < able.length;
    return {
      person,
      turn,
      team,
      shares: Object.fromEntries((now.length ? now : able).map((key) => [key, shares?.[key] ?? 1])),
      ...(by === 'load' || capacity ? { load: loadOf(person) } : {}),
      why: working ? `${words}, of those at work` : words,
    };
  }
  if (otherwise !== undefined && isActive(otherwise, record, destination))
    return {
      person: otherwise,
      turn: null,
      team,
      why: `takes what nobody of ${destination.teams?.[team]?.name ?? team} can`,
    };
  return nobody(
    `the team “${team}” is gone, or nobody there is active${capacity ? ', not away and with room for more' : ' and not away'}`,
  );
}

/** Those with the fewest open deals; of several, whose turn it is decides. */
function leastLoaded(people: readonly string[], counters: Counters): string[] {
  const least = Math.min(...people.map((key) => counters.get(loadOf(key))));
  return people.filter((key) => counters.get(loadOf(key)) === least);
}

function nobody(why: string): Assigned {
  return { person: null, turn: null, why };
}

function isActive(key: string | undefined, record: RecordKind, destination: Destination): boolean {
  const people = fieldOf(destination, record, 'owner')?.options ?? [];
  return key !== undefined && people.some((person) => person.key === key && !person.retired);
}

function canTake(key: string, record: RecordKind, ground: AssignmentGround): boolean {
  return isActive(key, record, ground.destination) && !isAwayAt(key, ground) && !ground.without?.includes(key);
}

function isAwayAt(key: string, { destination, submission }: AssignmentGround): boolean {
  const known = destination.people?.[key];
  return known !== undefined && isAway(known, submission.receivedAt);
}

function worksAt(key: string, at: string, { people = {} }: Destination): boolean {
  const known = people[key];
  return known === undefined || atWork({ ...known, active: true } as Person, at);
}

function nameOf(key: string, record: RecordKind, destination: Destination): string {
  return fieldOf(destination, record, 'owner')?.options?.find((person) => person.key === key)?.label ?? key;
}
