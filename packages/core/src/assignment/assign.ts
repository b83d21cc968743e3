import { fieldOf, type Destination } from '../destination/destination';
import type { RecordKind } from '../diff/record';
import { isAway } from '../people/person';
import { POSTED } from '../source/origin';
import { namedOwner, type SettledOwner, type TeamOwner } from './choose-owner';
import type { Assigned, AssignmentGround } from './assigned';
import { fromTeam } from './from-team';

/**
 * Chooses who gets something. Nobody gets anything who is not active, or away on the day of arrival; in a team, those who
 * can take it take turns in the order of their keys.
 */
export function assign(rule: SettledOwner, record: RecordKind, ground: AssignmentGround): Assigned {
  const { submission, destination } = ground;
  const { enteredBy } = submission.origin ?? POSTED;
  if ('enteredBy' in rule && isActive(enteredBy, record, destination)) return given(enteredBy!, 'entered it');
  const named = namedOwner(rule);
  if (!named) return nobody('no colleague entered it');
  if ('team' in named) return teamTakes(named, record, ground);
  const { person, standIn } = named;
  const active = isActive(person, record, destination);
  if (active && !isAwayAt(person, ground)) return given(person, 'named by the route');
  if (standIn !== undefined && canTake(standIn, record, ground))
    return given(standIn, `stands in for ${nameOf(person, record, destination)}`);
  // Without anybody to stand in it waits for whoever was named.
  return active
    ? given(person, 'named by the route, and away')
    : nobody(`the person “${person}” is gone, or not active`);
}

function teamTakes(rule: TeamOwner, record: RecordKind, ground: AssignmentGround): Assigned {
  const { team, keep = [], otherwise } = rule;
  const { destination, owners = {} } = ground;
  for (const kind of keep) {
    const owner = owners[kind];
    if (owner !== undefined && canTake(owner, record, ground))
      return { ...given(owner, `looks after the ${kind} already`), team };
  }
  const taken = fromTeam(rule, ground, (key) => canTake(key, record, ground));
  if (taken) return taken;
  const name = destination.teams?.[team]?.name ?? team;
  if (otherwise !== undefined && isActive(otherwise, record, destination))
    return { ...given(otherwise, `takes what nobody of ${name} can`), team };
  return nobody(`the team “${team}” is gone, or nobody there ${needed(rule)}`);
}

/** What somebody of a team must be to take something, in words. */
function needed({ capacity, perDay, speaks, skills = [] }: TeamOwner): string {
  return [
    'is active and not away',
    ...(speaks === undefined ? [] : [`speaks ${speaks}`]),
    ...(skills.length ? [`knows ${skills.join(' and ')}`] : []),
    ...(capacity || perDay ? ['has room for more'] : []),
  ].join(', ');
}

function given(person: string, why: string): Assigned {
  return { person, advance: {}, why };
}

function nobody(why: string): Assigned {
  return { person: null, advance: {}, why };
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

function nameOf(key: string, record: RecordKind, destination: Destination): string {
  return fieldOf(destination, record, 'owner')?.options?.find((person) => person.key === key)?.label ?? key;
}
