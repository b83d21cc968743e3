import { expect, test } from '@jest/globals';
import type { DecisionTable } from '../../decision/decision-table';
import type { Write } from '../../definition/route-definition';
import { destination as example, sale } from '../../testing/example';
import { nobodyTakes } from './nobody-takes';

const AT = '2026-03-11T12:00:00.000Z';
const away = { timeZone: null, hours: {}, away: [{ from: '2026-03-10', to: '2026-03-12' }] };
const destination = {
  ...example,
  fields: example.fields.map((field) =>
    field.key === 'owner' ? { ...field, options: ['ida', 'bo'].map((key) => ({ key, label: key })) } : field,
  ),
  teams: { north: { name: 'North', people: ['ida'] }, south: { name: 'South', people: ['bo'] } },
  people: { ida: away },
};
const owned = (owner: Write['owner']) => ({ writes: [{ ...sale, owner }] });

test.each<[string, Write['owner'], boolean]>([
  ['a team whose people are all away', { team: 'north' }, true],
  ['a team with somebody else for then', { team: 'north', otherwise: 'bo' }, false],
  ['a team nobody of which speaks what is asked for', { team: 'south', speaks: 'nl' }, true],
  ['a team that is gone', { team: 'west' }, true],
  ['a team with somebody', { team: 'south' }, false],
  ['a person who is gone', { person: 'cy' }, true],
  ['a person who is away', { person: 'ida' }, false],
  ['whoever enters it, and a team for the rest', { enteredBy: true, otherwise: { team: 'north' } }, true],
  ['nobody yet', undefined, false],
])('%s', (_, owner, isNobody) => {
  expect(nobodyTakes(owned(owner), destination, AT)).toHaveLength(isNobody ? 1 : 0);
});

test('rows of tables are told by their number', () => {
  const table: DecisionTable = {
    name: 'Who takes it',
    inputs: [],
    outputs: [
      { name: 'Owner', type: 'owner' },
      { name: 'Desk', type: 'team' },
    ],
    rows: [
      { when: [], then: { Owner: { team: 'north' }, Desk: 'south' } },
      { when: [], then: { Owner: { unread: 'somebody' } } },
    ],
    otherwise: { Desk: 'west' },
  };
  expect(nobodyTakes({ writes: [], decisions: [table] }, destination, AT)).toEqual([
    'Nobody gets what Who takes it decides by row 1: the team “north” is gone, or nobody there is active and not away',
    'Nobody gets what Who takes it decides by otherwise: the team “west” is gone, or nobody there is active and not away',
  ]);
});
