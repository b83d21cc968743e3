import { describe, expect, test } from '@jest/globals';
import { Counters } from '../../assignment/counters';
import { destination as example, person } from '../../testing/example';
import type { Origin } from '../../source/origin';
import { plannedOwner } from './plan-owner';

const destination = {
  ...example,
  fields: example.fields.map((field) =>
    field.key === 'owner'
      ? {
          ...field,
          options: ['ida', 'bo', 'cy'].map((key) => ({ key, label: key, ...(key === 'cy' ? { retired: true } : {}) })),
        }
      : field,
  ),
  teams: { north: { name: 'North', people: ['cy', 'bo', 'ida'] }, gone: { name: 'Gone', people: ['cy'] } },
};
const owned = (write: Partial<typeof person>, values = {}, counters = new Counters(), origin: Origin = {}) =>
  plannedOwner(
    { ...person, ...write },
    values,
    { origin, receivedAt: '2026-03-14T09:30:00.000Z' },
    destination,
    counters,
  );

describe('an owner', () => {
  test('is given where there is none, and kept where there is one', () => {
    expect(owned({ owner: { person: 'ida' } }).values).toEqual({ owner: 'ida' });
    expect(owned({ owner: { person: 'ida' } }, { owner: 'bo' })).toEqual({
      values: {},
      fields: [],
      problems: [],
      advance: {},
    });
  });

  test('is told to be missing when the person or the team can take nothing', () => {
    for (const owner of [{ person: 'cy' }, { person: 'nobody' }, { team: 'gone' }, { team: 'nowhere' }])
      expect(owned({ owner })).toMatchObject({ values: {}, problems: [{ code: 'no-owner' }] });
  });

  test('from a team is whoever’s turn it is: the active ones, one after the other', () => {
    const owner = { team: 'north' };
    const given = [0, 1, 2, 3].map((turn) => owned({ owner }, {}, new Counters({ 'turn north': turn })));
    expect(given.map(({ values }) => values.owner)).toEqual(['bo', 'ida', 'bo', 'ida']);
    expect(given.map(({ advance }) => advance)).toEqual(Array(4).fill({ 'turn north': 1 }));
    expect(owned({ owner: { person: 'ida' } }).advance).toEqual({});
    expect(owned({ owner }, { owner: 'ida' }).advance).toEqual({});
  });

  test('is the colleague who entered it, otherwise who is named for what nobody entered', () => {
    const by = (enteredBy: string | undefined, otherwise?: { person: string } | { team: string }) =>
      owned({ owner: { enteredBy: true, otherwise } }, {}, new Counters(), enteredBy ? { enteredBy } : {});
    expect(by('bo').values).toEqual({ owner: 'bo' });
    expect(by('bo', { person: 'ida' }).values).toEqual({ owner: 'bo' });
    expect(by(undefined, { person: 'ida' }).values).toEqual({ owner: 'ida' });
    expect(by('cy', { person: 'ida' }).values).toEqual({ owner: 'ida' });
    expect(by(undefined).problems).toMatchObject([
      { code: 'no-owner', text: 'The contact has no owner: no colleague entered it.' },
    ]);
    expect(by(undefined, { team: 'gone' }).problems[0]!.text).toContain('the team “gone” is gone');
  });
});
