import { describe, expect, test } from '@jest/globals';
import { atWork, checkPerson, isTimeZone, type Person } from './person';

const marlies: Person = {
  key: 'marlies-tol',
  name: 'Marlies Tol',
  active: true,
  regions: ['NL', 'DE'],
  languages: ['nl', 'de-AT'],
  timeZone: 'Europe/Amsterdam',
  hours: { mon: { from: '09:00', to: '17:30' }, fri: { from: '09:00', to: '12:00' } },
  phone: '+31201234567',
  capacity: 40,
  perDay: 6,
  skills: ['heating', 'Schulgärten'],
  away: [{ from: '2026-03-16', to: '2026-03-16' }],
};

test('a person who fits has nothing wrong', () => expect(checkPerson(marlies)).toEqual([]));

test.each<[string, Partial<Person>, string]>([
  ['no name', { name: ' ' }, '/name'],
  ['a country that is none', { regions: ['NL', 'QQ'] }, '/regions/1'],
  ['a country by its name', { regions: ['Netherlands'] }, '/regions/0'],
  ['a language that is none', { languages: ['qqq-99999999999'] }, '/languages/0'],
  ['an unknown time zone', { timeZone: 'Europe/Atlantis' }, '/timeZone'],
  ['hours that end before they begin', { hours: { tue: { from: '17:00', to: '09:00' } } }, '/hours/tue'],
  ['an hour that is none', { hours: { tue: { from: '9', to: '17:00' } } }, '/hours/tue'],
  ['a number without its country', { phone: '020 123 4567' }, '/phone'],
  ['half a capacity', { capacity: 0.5 }, '/capacity'],
  ['less than nothing a day', { perDay: -1 }, '/perDay'],
  ['a skill with a comma', { skills: ['glass', 'a, b'] }, '/skills/1'],
  ['a skill of blanks', { skills: ['  '] }, '/skills/0'],
  ['a skill beyond measure', { skills: ['x'.repeat(41)] }, '/skills/0'],
  ['an absence that ends before it begins', { away: [{ from: '2026-03-16', to: '2026-03-15' }] }, '/away/0'],
  ['an absence on no day', { away: [{ from: '2026-02-31', to: 'x' }] }, '/away/0'],
])('%s is a problem with its place', (_, change, at) => {
  expect(checkPerson({ ...marlies, ...change })).toMatchObject([{ at, text: expect.stringMatching(/\.$/) }]);
});

describe('somebody is at work', () => {
  test.each([
    ['within their hours, in their own zone', '2026-03-23T08:00:00Z', true],
    ['not before', '2026-03-23T07:59:00Z', false],
    ['not at the end', '2026-03-20T11:00:00Z', false],
    ['not on a day without hours', '2026-03-24T10:00:00Z', false],
    ['not while away', '2026-03-16T10:00:00Z', false],
    ['by summer time too', '2026-03-30T07:00:00Z', true],
  ])('%s', (_, at, expected) => expect(atWork(marlies, at)).toBe(expected));

  test('at any time without hours, and never when not active', () => {
    expect(atWork({ ...marlies, hours: {} }, '2026-03-22T03:00:00Z')).toBe(true);
    expect(atWork({ ...marlies, active: false }, '2026-03-23T10:00:00Z')).toBe(false);
  });
});

test('time zones are those that this machine knows', () => {
  expect([isTimeZone('America/Toronto'), isTimeZone('Mars/Olympus'), isTimeZone('')]).toEqual([true, false, false]);
});
