import { expect, test } from '@jest/globals';
import { destination as example } from '../testing/example';
import type { NamedOwner } from './choose-owner';
import { Counters } from './counters';
import { handOver } from './hand-over';

const KEYS = ['bo', 'cy', 'ida'];
const destination = {
  ...example,
  fields: example.fields.map((field) =>
    field.key === 'owner' ? { ...field, options: KEYS.map((key) => ({ key, label: key })) } : field,
  ),
  teams: { north: { name: 'North', people: KEYS } },
};
const records = Array.from({ length: 9 }, (_, n) => ({ kind: 'deal' as const, id: `d${n}` }));
const handed = (rule: NamedOwner, counters = new Counters()) =>
  handOver(records, rule, {
    destination,
    counters,
    submission: { receivedAt: '2026-03-11T12:00:00.000Z', origin: undefined },
    without: ['ida'],
  });

test('what somebody leaves goes to the others in turn, and never back', () => {
  const { handed: all, advance } = handed({ team: 'north' });
  expect(all.map(({ person }) => person).join(' ')).toBe('bo cy bo cy bo cy bo cy bo');
  expect(all[0]).toMatchObject({ team: 'north', why: 'in turn in North', shares: { bo: 1, cy: 1 } });
  expect(advance).toEqual({ 'turn north': 9 });
});

test('by load it fills up whoever has the least', () => {
  const { handed: all } = handed({ team: 'north', by: 'load' }, new Counters({ 'load bo': 7, 'load cy': 0 }));
  expect(all.filter(({ person }) => person === 'cy')).toHaveLength(8);
});

test('one person gets all, and nobody gets what the leaver alone could take', () => {
  expect(new Set(handed({ person: 'cy' }).handed.map(({ person }) => person))).toEqual(new Set(['cy']));
  const { handed: none, advance } = handed({ team: 'gone' });
  expect(none.every(({ person }) => person === null)).toBe(true);
  expect(advance).toEqual({});
});
