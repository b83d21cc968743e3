import type { Destination } from '../destination/destination';
import { formatMoney } from '../reading/money';
import { atWork, localMoment, type Person } from '../people/person';
import { dueAt } from '../people/working-time';
import { counted } from '../text';
import type { Assigned, AssignmentGround } from './assigned';
import type { TeamOwner } from './choose-owner';
import { dayOf, lastTurnOf, turnOf, workOf, type Counters, type CountedWork } from './counters';
import { turnByShares } from './shares';

/** How whoever has the least is told, by what is counted of people. */
const LEAST: Record<CountedWork, (team: string, has: number, currency: string) => string> = {
  load: (team, has) => `least loaded in ${team}, with ${counted(has, 'open lead or deal', 'open leads and deals')}`,
  tasks: (team, has) => `with the fewest tasks in ${team}, with ${counted(has, 'open task', 'open tasks')}`,
  worth: (team, amount, currency) =>
    `with the least value in ${team}, with ${formatMoney({ amount, currency })} in open deals`,
};

/**
 * Who of a team gets something: of those who can take it whoever is at work, then whoever has the least, then whose turn it
 * is. `null` when nobody can.
 *
 * @param canTake Whether somebody is active, and not away.
 */
export function fromTeam(
  rule: TeamOwner,
  { destination, counters, worth = 0, submission: { receivedAt } }: AssignmentGround,
  canTake: (key: string) => boolean,
): Assigned | null {
  const { team, shares, by, notTwice } = rule;
  const free = (destination.teams?.[team]?.people ?? [])
    .filter(
      (key) => canTake(key) && fits(key, rule, destination) && hasRoom(key, rule, destination, counters, receivedAt),
    )
    .sort();
  const able = free.filter((key) => (shares?.[key] ?? 1) > 0);
  const working = rule.atWork ? workingFirst(able, receivedAt, destination) : { people: able, words: '' };
  const turn = turnOf(team);
  const taken = counters.get(turn);
  const rested = notTwice ? working.people.filter((key) => !hadLast(team, key, counters)) : working.people;
  const people = rested.length ? rested : working.people;
  const person = turnByShares(by ? withLeast(by, people, counters) : people, shares ?? {}, taken);
  if (person === null) return null;
  const name = destination.teams?.[team]?.name ?? team;
  const why = by
    ? LEAST[by](name, counters.get(workOf(by, person)), destination.defaultCurrency)
    : `in turn in ${name}${shares ? ', by shares' : ''}`;
  return {
    person,
    team,
    why: `${why}${working.words}`,
    shares: Object.fromEntries(people.map((key) => [key, shares?.[key] ?? 1])),
    advance: {
      [turn]: 1,
      ...(notTwice ? { [lastTurnOf(team, person)]: taken + 1 - counters.get(lastTurnOf(team, person)) } : {}),
      ...(by === 'load' || rule.capacity ? { [workOf('load', person)]: 1 } : {}),
      ...(by === 'tasks' ? { [workOf('tasks', person)]: 1 } : {}),
      ...(by === 'worth' ? { [workOf('worth', person)]: worth } : {}),
      ...(rule.perDay ? { [dayCounter(person, destination, receivedAt)]: 1 } : {}),
    },
  };
}

/** The counters that decide who of a team gets something at a moment (ISO 8601). */
export function countersOfTeam(
  { team, by, capacity, notTwice, perDay }: TeamOwner,
  destination: Destination,
  at: string,
): string[] {
  const people = destination.teams?.[team]?.people ?? [];
  return [
    turnOf(team),
    ...(capacity && by !== 'load' ? people.map((key) => workOf('load', key)) : []),
    ...(by ? people.map((key) => workOf(by, key)) : []),
    ...(notTwice ? people.map((key) => lastTurnOf(team, key)) : []),
    ...(perDay ? people.map((key) => dayCounter(key, destination, at)) : []),
  ];
}

/** Whether somebody speaks and knows what is asked for. */
function fits(key: string, { speaks, skills = [] }: TeamOwner, { people = {} }: Destination): boolean {
  const { languages = [], skills: own = [] } = people[key] ?? {};
  return (speaks === undefined || speaksIt(languages, speaks)) && skills.every((skill) => own.includes(skill));
}

/** Whoever speaks `pt` is asked for `pt-BR` too, and the other way round (RFC 4647, basic filtering). */
function speaksIt(languages: readonly string[], wanted: string): boolean {
  const tag = (one: string) => `${one.toLowerCase()}-`;
  return languages.some((one) => tag(one).startsWith(tag(wanted)) || tag(wanted).startsWith(tag(one)));
}

function hasRoom(
  key: string,
  { capacity, perDay }: TeamOwner,
  destination: Destination,
  counters: Counters,
  at: string,
): boolean {
  const known = destination.people?.[key];
  const within = (asked: boolean | undefined, counter: () => string, most: number | undefined) =>
    !asked || most === undefined || counters.get(counter()) < most;
  return (
    within(capacity, () => workOf('load', key), known?.capacity) &&
    within(perDay, () => dayCounter(key, destination, at), known?.perDay)
  );
}

function dayCounter(key: string, { people = {} }: Destination, at: string): string {
  return dayOf(key, localMoment(at, people[key]?.timeZone ?? 'UTC').day);
}

/** Those at work; while nobody is, those who begin first. */
function workingFirst(
  people: readonly string[],
  at: string,
  destination: Destination,
): { people: readonly string[]; words: string } {
  const known = (key: string) => destination.people?.[key];
  const now = people.filter((key) => {
    const person = known(key);
    return person === undefined || atWork({ ...person, active: true } as Person, at);
  });
  if (now.length) return { people: now, words: now.length < people.length ? ', of those at work' : '' };
  const begins = people.map((key) => dueAt(at, { in: 1, unit: 'minutes', working: true }, known(key)));
  const first = [...begins].sort()[0];
  const next = people.filter((_, index) => begins[index] === first);
  return { people: next, words: next.length && next.length < people.length ? ', whose work begins first' : '' };
}

function hadLast(team: string, key: string, counters: Counters): boolean {
  const last = counters.get(lastTurnOf(team, key));
  return last > 0 && last === counters.get(turnOf(team));
}

/** Those with the fewest; of several, whose turn it is decides. */
function withLeast(by: CountedWork, people: readonly string[], counters: Counters): readonly string[] {
  const least = Math.min(...people.map((key) => counters.get(workOf(by, key))));
  return people.filter((key) => counters.get(workOf(by, key)) === least);
}
