import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { dueAt, workBetween, type Availability, type DueIn } from './working-time';

/** Nine to half past five from Monday to Thursday in Amsterdam, away on Wednesday the 25th. */
const marlies: Availability = {
  timeZone: 'Europe/Amsterdam',
  hours: Object.fromEntries(['mon', 'tue', 'wed', 'thu'].map((day) => [day, { from: '09:00', to: '17:30' }])),
  away: [{ from: '2026-03-25', to: '2026-03-25' }],
};

describe('something is due', () => {
  test.each<[string, string, DueIn, string]>([
    ['two hours of the clock later', '2026-03-27T22:30:00Z', { in: 2, unit: 'hours' }, '2026-03-28T00:30:00.000Z'],
    ['a day of the clock later', '2026-03-27T22:30:00Z', { in: 1, unit: 'days' }, '2026-03-28T22:30:00.000Z'],
    ['within her day', '2026-03-23T10:00:00Z', { in: 2, unit: 'hours', working: true }, '2026-03-23T12:00:00.000Z'],
    [
      'at the very end of her day',
      '2026-03-23T15:30:00Z',
      { in: 1, unit: 'hours', working: true },
      '2026-03-23T16:30:00.000Z',
    ],
    ['on her next day', '2026-03-23T16:00:00Z', { in: 2, unit: 'hours', working: true }, '2026-03-24T09:30:00.000Z'],
    ['after her absence', '2026-03-24T16:00:00Z', { in: 1, unit: 'hours', working: true }, '2026-03-26T08:30:00.000Z'],
    // Clocks go forward on the 29th: nine in the morning is an hour earlier then.
    [
      'over free days and summer time',
      '2026-03-26T16:00:00Z',
      { in: 1, unit: 'hours', working: true },
      '2026-03-30T07:30:00.000Z',
    ],
    ['today still', '2026-03-23T10:00:00Z', { in: 0, unit: 'days', working: true }, '2026-03-23T16:30:00.000Z'],
    [
      'at the end of her next day',
      '2026-03-23T10:00:00Z',
      { in: 1, unit: 'days', working: true },
      '2026-03-24T16:30:00.000Z',
    ],
    [
      'two days at work later',
      '2026-03-23T23:30:00Z',
      { in: 2, unit: 'days', working: true },
      '2026-03-30T15:30:00.000Z',
    ],
    [
      'on Monday, of what came on a free day',
      '2026-03-28T10:00:00Z',
      { in: 1, unit: 'days', working: true },
      '2026-03-30T15:30:00.000Z',
    ],
  ])('%s', (_, from, due, expected) => expect(dueAt(from, due, marlies)).toBe(expected));

  test('from Monday to Friday, nine to five, for whom no hours are known', () => {
    expect(dueAt('2026-03-27T16:00:00Z', { in: 2, unit: 'hours', working: true })).toBe('2026-03-30T10:00:00.000Z');
  });

  test('by the clock for somebody who never works', () => {
    const away = { ...marlies, away: [{ from: '2026-01-01', to: '2099-12-31' }] };
    expect(dueAt('2026-03-27T16:00:00Z', { in: 2, unit: 'hours', working: true }, away)).toBe(
      '2026-03-27T18:00:00.000Z',
    );
  });

  test('never before it begins, and not sooner for more, whatever the zone', () => {
    const zones = ['Europe/Amsterdam', 'America/St_Johns', 'Pacific/Chatham', 'Asia/Kathmandu', 'UTC'];
    fc.assert(
      fc.property(
        fc.date({ min: new Date('2024-01-01'), max: new Date('2030-01-01'), noInvalidDate: true }),
        fc.integer({ min: 0, max: 80 }),
        fc.constantFrom(...zones),
        fc.constantFrom('hours' as const, 'days' as const),
        (from, amount, timeZone, unit) => {
          const at = (n: number) => dueAt(from.toISOString(), { in: n, unit, working: true }, { ...marlies, timeZone });
          return (
            at(amount) >= from.toISOString() &&
            (unit === 'hours' ? at(amount + 1) > at(amount) : at(amount + 1) >= at(amount))
          );
        },
      ),
    );
  });
});

describe('working time between two moments', () => {
  test.each([
    ['within her day', '2026-03-23T10:00:00Z', '2026-03-23T12:30:00Z', 150],
    ['over a night', '2026-03-23T16:00:00Z', '2026-03-24T09:00:00Z', 90],
    ['over an absence and free days', '2026-03-24T16:00:00Z', '2026-03-30T07:30:00Z', 30 + 510 + 30],
    ['on a free day alone', '2026-03-27T10:00:00Z', '2026-03-29T12:00:00Z', 0],
    ['that are the same', '2026-03-23T10:00:00Z', '2026-03-23T10:00:00Z', 0],
    ['of which the second is before the first', '2026-03-24T10:00:00Z', '2026-03-23T10:00:00Z', 0],
  ])('%s', (_, from, to, minutes) => expect(workBetween(from, to, marlies) / 60_000).toBe(minutes));

  test('is what was given until something is due', () =>
    fc.assert(
      fc.property(
        fc.date({ min: new Date('2026-01-01'), max: new Date('2026-12-31'), noInvalidDate: true }),
        fc.integer({ min: 1, max: 5_000 }),
        fc.constantFrom(marlies, undefined),
        (at, minutes, who) => {
          const due = dueAt(at.toISOString(), { in: minutes, unit: 'minutes', working: true }, who);
          expect(workBetween(at.toISOString(), due, who)).toBe(minutes * 60_000);
        },
      ),
    ));
});
