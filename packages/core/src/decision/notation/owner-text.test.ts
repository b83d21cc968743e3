import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { NamedOwner } from '../../assignment/choose-owner';
import { destination as example } from '../../testing/example';
import { readOwner, showOwner } from './owner-text';

const people = [
  { key: 'ida', label: 'Ida Vos' },
  { key: 'bo', label: 'Bo, the younger' },
  { key: 'else-where', label: 'Else Where' },
];
const destination = {
  ...example,
  fields: example.fields.map((field) => (field.key === 'owner' ? { ...field, options: people } : field)),
  teams: { north: { name: 'North', people: [] }, 'north-east': { name: 'North, east', people: [] } },
};

describe('whom a cell names', () => {
  test.each<[string, NamedOwner | null]>([
    ['ida vos', { person: 'ida' }],
    ['Ida Vos, else Bo, the younger', null],
    ['Bo, the younger', { person: 'bo' }],
    ['Bo, the younger, else Ida Vos', { person: 'bo', standIn: 'ida' }],
    ['North', { team: 'north' }],
    ['North, in turn', { team: 'north' }],
    ['North, east, in turn', { team: 'north-east' }],
    [
      "North, contact's owner first, at work first, else ida",
      { team: 'north', keep: ['contact'], atWork: true, otherwise: 'ida' },
    ],
    [
      'North, speaks fr-CA, knows heating, knows Glass, never twice in a row',
      { team: 'north', speaks: 'fr-CA', skills: ['heating', 'Glass'], notTwice: true },
    ],
    ['North, fewest tasks, with room today', { team: 'north', by: 'tasks', perDay: true }],
    ['North, least value', { team: 'north', by: 'worth' }],
    ['North, speaks', null],
    ['North, Ida Vos 2, else where 0', { team: 'north', shares: { ida: 2, 'else-where': 0 } }],
    ['North, Ida Vos 101', null],
    ['North, Nobody 2', null],
    ['North, whoever likes', null],
    ['North, else nobody', null],
    ['Nobody', null],
    ['', null],
  ])('“%s” is read', (text, rule) => expect(readOwner(text, destination)).toEqual(rule));

  test('is shown as it is read', () => {
    const key = fc.constantFrom('ida', 'else-where');
    const option = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined });
    const rule = fc.oneof(
      fc.record({ person: fc.constantFrom('ida', 'bo'), standIn: option(key) }),
      fc.record({
        team: fc.constantFrom('north', 'north-east'),
        keep: option(fc.constantFrom<('contact' | 'company')[]>(['contact'], ['company'], ['company', 'contact'])),
        atWork: option(fc.constant(true as const)),
        by: option(fc.constantFrom('load' as const, 'tasks' as const, 'worth' as const)),
        capacity: option(fc.constant(true as const)),
        perDay: option(fc.constant(true as const)),
        notTwice: option(fc.constant(true as const)),
        speaks: option(fc.constantFrom('nl', 'pt-BR')),
        skills: option(fc.uniqueArray(fc.constantFrom('heating', 'else', '2 houses'), { minLength: 1 })),
        shares: option(fc.dictionary(key, fc.integer({ min: 0, max: 100 }), { minKeys: 1, noNullPrototype: true })),
        otherwise: option(key),
      }),
    );
    fc.assert(fc.property(rule, (one) => expect(readOwner(showOwner(one, destination), destination)).toEqual(one)));
  });
});
