import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Destination } from '../destination/destination';
import { destination as example } from '../testing/example';
import { assign } from './assign';
import type { AssignmentGround } from './assigned';
import type { SettledOwner } from './choose-owner';
import { Counters } from './counters';

const PEOPLE = ['bo', 'cy', 'ida', 'old'];
const NINE_TO_FIVE = { from: '09:00', to: '17:00' };
const WEEK = Object.fromEntries(['mon', 'tue', 'wed', 'thu', 'fri'].map((day) => [day, NINE_TO_FIVE]));
const works = (timeZone: string, away: { from: string; to: string }[] = []) => ({ timeZone, hours: WEEK, away });
const withPeople = (people: Destination['people'] = {}): Destination => ({
  ...example,
  fields: example.fields.map((field) =>
    field.key === 'owner'
      ? { ...field, options: PEOPLE.map((key) => ({ key, label: key, ...(key === 'old' ? { retired: true } : {}) })) }
      : field,
  ),
  teams: {
    north: { name: 'North', people: ['ida', 'old', 'bo', 'cy'] },
    none: { name: 'None', people: ['old'] },
  },
  people,
});
/** Half past nine in Greenwich on a Wednesday. */
const WEDNESDAY = '2026-03-11T09:30:00.000Z';
const given = (rule: SettledOwner, more: Partial<AssignmentGround> & { at?: string } = {}) => {
  const { at = WEDNESDAY, ...ground } = more;
  const submission = { receivedAt: at };
  return assign(rule, 'contact', { submission, destination: withPeople(), counters: new Counters(), ...ground });
};
const away = [{ from: '2026-03-10', to: '2026-03-11' }];

describe('who gets it', () => {
  test('is the person named; while they are away, who stands in; and themselves where nobody can', () => {
    const destination = withPeople({ ida: works('UTC', away), bo: works('UTC') });
    expect(given({ person: 'ida' })).toEqual({ person: 'ida', advance: {}, why: 'named by the route' });
    expect(given({ person: 'ida', standIn: 'bo' }, { destination })).toMatchObject({
      person: 'bo',
      why: 'stands in for ida',
    });
    expect(given({ person: 'ida', standIn: 'old' }, { destination })).toMatchObject({
      person: 'ida',
      why: 'named by the route, and away',
    });
    expect(given({ person: 'ida', standIn: 'bo' }, { destination, at: '2026-03-12T09:30:00.000Z' }).person).toBe('ida');
    expect(given({ person: 'old' })).toMatchObject({ person: null, advance: {} });
  });

  test('is whoever looks after the contact or the company already, before anybody’s turn', () => {
    const rule: SettledOwner = { team: 'north', keep: ['contact', 'company'] };
    expect(given(rule, { owners: { company: 'cy' } })).toEqual({
      person: 'cy',
      advance: {},
      team: 'north',
      why: 'looks after the company already',
    });
    expect(given(rule, { owners: { contact: 'ida', company: 'cy' } }).person).toBe('ida');
    expect(given(rule, { owners: { contact: 'old' } })).toMatchObject({ person: 'bo', advance: { 'turn north': 1 } });
    expect(given({ team: 'north' }, { owners: { contact: 'ida' } }).person).toBe('bo');
    const destination = withPeople({ ida: works('UTC', away) });
    expect(given(rule, { destination, owners: { contact: 'ida' } }).advance).toEqual({ 'turn north': 1 });
  });

  test('is somebody at work, by the clock of each, and while nobody is whoever begins first', () => {
    const destination = withPeople({
      ida: works('Asia/Tokyo'),
      bo: works('America/Toronto'),
      cy: works('Europe/London'),
    });
    const rule: SettledOwner = { team: 'north', atWork: true };
    expect(given(rule, { destination })).toMatchObject({ person: 'cy', why: 'in turn in North, of those at work' });
    // Ten in the evening in Toronto is eleven in the morning of the next day in Tokyo.
    expect(given(rule, { destination, at: '2026-03-12T02:00:00.000Z' }).person).toBe('ida');
    expect(given(rule, { destination, at: '2026-03-14T12:00:00.000Z' })).toMatchObject({
      person: 'ida',
      why: 'in turn in North, whose work begins first',
    });
    // The clocks of London went forward on the 29th: nine there is eight in Greenwich.
    expect(given(rule, { destination, at: '2026-03-30T08:05:00.000Z' }).person).toBe('cy');
  });

  test('is who takes what nobody of the team can, and nobody where that is said of nobody', () => {
    expect(given({ team: 'none', otherwise: 'ida' })).toEqual({
      person: 'ida',
      advance: {},
      team: 'none',
      why: 'takes what nobody of None can',
    });
    expect(given({ team: 'none' })).toMatchObject({ person: null, why: expect.stringContaining('nobody there') });
    const destination = withPeople({ ida: works('UTC', away), bo: works('UTC', away), cy: works('UTC', away) });
    expect(given({ team: 'north', otherwise: 'old' }, { destination }).person).toBeNull();
  });

  test('goes by shares where people have such, and by those of who can take it', () => {
    const counters = new Counters();
    const rule: SettledOwner = { team: 'north', shares: { ida: 3, cy: 0 } };
    const turns = (destination = withPeople()) =>
      Array.from({ length: 4 }, () => {
        const { person, advance, why } = given(rule, { counters, destination });
        counters.advance(advance);
        expect(why).toBe('in turn in North, by shares');
        return person;
      });
    expect(turns().sort()).toEqual(['bo', 'ida', 'ida', 'ida']);
    expect(turns(withPeople({ ida: works('UTC', away) }))).toEqual(['bo', 'bo', 'bo', 'bo']);
    expect(given({ team: 'north', shares: { ida: 0, bo: 0, cy: 0 } }).person).toBeNull();
  });

  test('is the least loaded, of several whose turn it is, and nobody with as many as are enough', () => {
    const loads = { 'load bo': 4, 'load cy': 2, 'load ida': 2 };
    const counters = new Counters(loads);
    const rule: SettledOwner = { team: 'north', by: 'load' };
    expect(given(rule, { counters })).toEqual({
      person: 'cy',
      team: 'north',
      shares: { cy: 1, bo: 1, ida: 1 },
      advance: { 'turn north': 1, 'load cy': 1 },
      why: 'least loaded in North, with 2 open leads and deals',
    });
    const got = Array.from({ length: 5 }, () => {
      const { person, advance } = given(rule, { counters });
      counters.advance(advance);
      return person;
    });
    // Two more for each of those with two, and then somebody has a fifth.
    expect(got.slice(0, 4).sort()).toEqual(['cy', 'cy', 'ida', 'ida']);
    const enough = { ...works('UTC'), capacity: 4 };
    const destination = withPeople({ bo: enough, cy: enough, ida: { ...works('UTC'), capacity: 9 } });
    const full = new Counters({ 'load bo': 4, 'load cy': 7, 'load ida': 8 });
    const capped: SettledOwner = { team: 'north', capacity: true, otherwise: 'bo' };
    expect(given(capped, { destination, counters: full })).toMatchObject({ person: 'ida', advance: { 'load ida': 1 } });
    full.advance({ 'load ida': 1 });
    expect(given(capped, { destination, counters: full })).toMatchObject({ person: 'bo', advance: {} });
  });

  test('is never somebody away, and each of the others gets as many as the next', () => {
    const days = fc.integer({ min: 0, max: 20 });
    const absence = fc.tuple(days, days).map(([a, b]) => ({ from: day(Math.min(a, b)), to: day(Math.max(a, b)) }));
    const absences = fc.record({
      ida: fc.array(absence, { maxLength: 2 }),
      bo: fc.array(absence, { maxLength: 2 }),
      cy: fc.constant<{ from: string; to: string }[]>([]),
    });
    fc.assert(
      fc.property(absences, days, fc.integer({ min: 1, max: 60 }), (gone, on, count) => {
        const people = Object.fromEntries(Object.entries(gone).map(([key, own]) => [key, works('UTC', own)]));
        const counters = new Counters();
        const got = new Map<string, number>();
        for (let n = 0; n < count; n += 1) {
          const { person, advance } = given(
            { team: 'north' },
            { destination: withPeople(people), counters, at: `${day(on)}T10:00:00.000Z` },
          );
          counters.advance(advance);
          got.set(person!, (got.get(person!) ?? 0) + 1);
        }
        for (const [key, own] of Object.entries(gone))
          if (own.some(({ from, to }) => from <= day(on) && day(on) <= to)) expect(got.has(key)).toBe(false);
        const shares = [...got.values()];
        expect(Math.max(...shares) - Math.min(...shares)).toBeLessThanOrEqual(1);
      }),
    );
  });
});

function day(n: number): string {
  return `2026-03-${String(n + 1).padStart(2, '0')}`;
}
