import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Destination, KnownPerson } from '../destination/destination';
import { destination as example } from '../testing/example';
import type { TeamOwner } from './choose-owner';
import { Counters } from './counters';
import { countersOfTeam, fromTeam } from './from-team';

const KEYS = ['bo', 'cy', 'ida'];
const known = (more: Partial<KnownPerson> = {}): KnownPerson => ({ timeZone: null, hours: {}, away: [], ...more });
const withPeople = (people: Record<string, Partial<KnownPerson>>): Destination => ({
  ...example,
  teams: { north: { name: 'North', people: KEYS } },
  people: Object.fromEntries(KEYS.map((key) => [key, known(people[key])])),
});
const NOON = '2026-03-11T12:00:00.000Z';

/** Who gets several in a row, each as a run of its own. */
function gets(
  rule: Omit<TeamOwner, 'team'>,
  people: Record<string, Partial<KnownPerson>>,
  {
    count = 6,
    counters = new Counters(),
    at = NOON,
    able = KEYS,
    worth,
  }: {
    count?: number;
    counters?: Counters;
    at?: string;
    able?: readonly string[];
    worth?: number;
  } = {},
): (string | null)[] {
  const destination = withPeople(people);
  return Array.from({ length: count }, () => {
    const ground = { destination, counters, worth, submission: { receivedAt: at, origin: undefined } };
    const taken = fromTeam({ team: 'north', ...rule }, ground, (key) => able.includes(key));
    counters.advance(taken?.advance);
    // Nothing decides that was not asked for before.
    const asked = countersOfTeam({ team: 'north', ...rule }, destination, at);
    expect(Object.keys(taken?.advance ?? {}).filter((name) => !asked.includes(name))).toEqual([]);
    return taken?.person ?? null;
  });
}

describe('of a team gets it', () => {
  test('only who speaks what is asked for, whatever part of the world it is from', () => {
    const people = { bo: { languages: ['nl', 'fr-CA'] }, cy: { languages: ['en'] }, ida: { languages: ['FR'] } };
    expect(gets({ speaks: 'fr' }, people, { count: 4 })).toEqual(['bo', 'ida', 'bo', 'ida']);
    expect(gets({ speaks: 'fr-CA' }, people, { count: 2 })).toEqual(['bo', 'ida']);
    expect(gets({ speaks: 'fr-BE' }, people, { count: 2 })).toEqual(['ida', 'ida']);
    expect(gets({ speaks: 'f' }, people, { count: 1 })).toEqual([null]);
    expect(gets({ speaks: 'de' }, people, { count: 1 })).toEqual([null]);
  });

  test('only who knows all that is asked for', () => {
    const people = { bo: { skills: ['glass', 'heating'] }, cy: { skills: ['glass'] } };
    expect(gets({ skills: ['glass'] }, people, { count: 3 })).toEqual(['bo', 'cy', 'bo']);
    expect(gets({ skills: ['glass', 'heating'] }, people, { count: 2 })).toEqual(['bo', 'bo']);
    expect(gets({ skills: ['schools'] }, people, { count: 1 })).toEqual([null]);
  });

  test('nobody more than is enough for a day of theirs, by their own calendar', () => {
    const people = { bo: { perDay: 1 }, cy: { perDay: 0 }, ida: { perDay: 2, timeZone: 'Pacific/Auckland' } };
    const counters = new Counters();
    expect(gets({ perDay: true }, people, { counters, count: 4 })).toEqual(['bo', 'ida', 'ida', null]);
    // An hour before midnight in Greenwich is the next day in Auckland since eleven hours.
    expect(gets({ perDay: true }, people, { counters, count: 2, at: '2026-03-11T10:59:00.000Z' })).toEqual([
      'ida',
      'ida',
    ]);
    expect(gets({ perDay: true }, people, { counters, count: 1, at: '2026-03-12T00:00:00.000Z' })).toEqual(['bo']);
    expect(gets({}, people, { counters, count: 2 })).not.toContain(null);
  });

  test('nobody twice in a row while others can take it, though their share were larger', () => {
    const shares = { bo: 5, cy: 1, ida: 0 };
    const got = gets({ shares, notTwice: true }, {}, { count: 12 });
    expect(got.filter((key, nth) => nth > 0 && key === got[nth - 1])).toEqual([]);
    expect(gets({ notTwice: true }, {}, { count: 3, able: ['cy'] })).toEqual(['cy', 'cy', 'cy']);
  });

  test('whoever has the fewest open tasks, each new one among them', () => {
    const counters = new Counters({ 'tasks bo': 2, 'tasks cy': 0, 'tasks ida': 3 });
    expect(gets({ by: 'tasks' }, {}, { counters, count: 4 })).toEqual(['cy', 'cy', 'bo', 'cy']);
  });

  test('whoever’s open deals are worth least, each new one among them; one that is worth nothing changes nothing', () => {
    const counters = new Counters({ 'worth bo': 90_000, 'worth cy': 20_000, 'worth ida': 50_000 });
    expect(gets({ by: 'worth' }, {}, { counters, count: 4, worth: 35_000 })).toEqual(['cy', 'ida', 'cy', 'ida']);
    expect(gets({ by: 'worth' }, {}, { counters, count: 3 })).toEqual(['bo', 'cy', 'bo']);
  });

  test('while nobody is at work, whoever begins first, also over the change to summer time', () => {
    const nine = { mon: { from: '09:00', to: '17:00' } };
    const people = {
      bo: { timeZone: 'America/Toronto', hours: nine },
      cy: { timeZone: 'Europe/Berlin', hours: nine },
      ida: { timeZone: 'Europe/London', hours: nine },
    };
    expect(gets({ atWork: true }, people, { count: 2, at: '2026-03-28T23:30:00.000Z' })).toEqual(['cy', 'cy']);
  });
});

test('whatever happens, no limit of a day is passed, nobody who cannot gets any, and what is left is said', () => {
  const limits = fc.record({ bo: fc.nat(6), cy: fc.nat(6), ida: fc.nat(6) });
  fc.assert(
    fc.property(limits, fc.subarray(KEYS), fc.boolean(), fc.nat(20), (most, able, notTwice, count) => {
      const people = Object.fromEntries(KEYS.map((key) => [key, { perDay: most[key as 'bo'] }]));
      const got = gets({ perDay: true, ...(notTwice ? { notTwice } : {}) }, people, { able, count });
      const of = (key: string) => got.filter((one) => one === key).length;
      for (const key of KEYS) expect(of(key)).toBeLessThanOrEqual(able.includes(key) ? most[key as 'bo'] : 0);
      const room = able.reduce((sum, key) => sum + most[key as 'bo'], 0);
      expect(got.filter((one) => one !== null)).toHaveLength(Math.min(room, count));
    }),
  );
});
