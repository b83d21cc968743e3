import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { FIELD_TYPES, type FieldType } from '../field/field-definition';
import type { FieldValue } from '../diff/record';
import { meets, type Compared } from './comparison';
import type { RecordCondition } from './condition';
import type { ConditionSetting } from './condition-test';
import { describeCondition } from './describe-condition';
import { checkCondition, evaluate, type ConditionReader } from './evaluate';
import { CONDITION_TESTS, testNamed, testsFor } from './registry';

const SETTING: ConditionSetting = {
  now: '2026-03-14T12:00:00.000Z',
  defaultCurrency: 'GBP',
  me: 'robin-nye',
  teams: { 'builds-north': { people: ['robin-nye', 'idris-vale'] } },
};
const TYPES: Record<string, FieldType> = { country: 'text', bays: 'whole-number', tags: 'several-of', owner: 'person' };
const reader = (values: Record<string, FieldValue>): ConditionReader<{ field: string }> => ({
  typeOf: ({ field }) => TYPES[field],
  valueOf: ({ field }) => values[field] ?? null,
});
const met = (condition: RecordCondition, values: Record<string, FieldValue> = {}) =>
  evaluate(condition, reader(values), SETTING).met;

describe('every test of the registry', () => {
  test.each(CONDITION_TESTS.map((one) => [one.name, one] as const))('%s does what its example says', (_, entry) => {
    const { type, wanted, meets: good, fails } = entry.example;
    const compared = entry.compare(wanted, { ...SETTING, type, caseSensitive: false }) as Compared;
    expect(compared).toMatchObject({ comparison: expect.anything() });
    expect([meets(compared, good), meets(compared, fails)]).toEqual([true, false]);
    expect(entry.fits).toContain(type);
  });

  test.each(CONDITION_TESTS.filter(({ wanted }) => wanted !== 'none').map((one) => [one.name, one] as const))(
    '%s says in a sentence what is missing when nothing is given',
    (_, entry) => {
      const said = entry.compare(undefined, { ...SETTING, type: entry.fits[0]!, caseSensitive: false });
      expect(said).toMatch(/^[A-Z].*\.$/);
    },
  );

  test('names differ, and every type of field can be tested', () => {
    expect(new Set(CONDITION_TESTS.map(({ name }) => name)).size).toBe(CONDITION_TESTS.length);
    for (const type of FIELD_TYPES) expect(testsFor(type).length).toBeGreaterThan(2);
  });
});

describe('a condition', () => {
  const nl: RecordCondition = { of: { field: 'country' }, test: 'is', value: 'nl' };
  const big: RecordCondition = { of: { field: 'bays' }, test: 'at-least', value: '10' };

  test('joins clauses by all, any and not', () => {
    expect(met({ all: [nl, big] }, { country: 'NL', bays: 10 })).toBe(true);
    expect(met({ all: [nl, big] }, { country: 'NL', bays: 9 })).toBe(false);
    expect(met({ any: [nl, big] }, { country: 'DE', bays: 12 })).toBe(true);
    expect(met({ not: { any: [nl, big] } }, { country: 'DE' })).toBe(true);
    expect([met({ all: [] }), met({ any: [] })]).toEqual([true, false]);
  });

  test('names the clauses that decided', () => {
    expect(evaluate({ all: [nl, big] }, reader({ country: 'NL' }), SETTING)).toEqual({ met: false, because: [big] });
    expect(evaluate({ any: [nl, big] }, reader({ country: 'NL' }), SETTING)).toEqual({ met: true, because: [nl] });
  });

  test('does not let capitals count unless they are chosen to', () => {
    const exact: RecordCondition = { of: { field: 'country' }, test: 'is', value: 'nl', caseSensitive: true };
    expect([met(nl, { country: 'NL' }), met(exact, { country: 'NL' })]).toEqual([true, false]);
  });

  test('lets nothing pass by a clause that makes no sense, nor by its opposite', () => {
    const wrong: RecordCondition = { of: { field: 'bays' }, test: 'at-least', value: 'many' };
    expect([met(wrong, { bays: 3 }), met({ not: wrong }, { bays: 3 })]).toEqual([false, false]);
  });

  test('knows who looks, and who is in a team', () => {
    expect(met({ of: { field: 'owner' }, test: 'me' }, { owner: 'robin-nye' })).toBe(true);
    const team: RecordCondition = { of: { field: 'owner' }, test: 'in-team', value: 'builds-north' };
    expect([met(team, { owner: 'idris-vale' }), met(team, { owner: 'hanne-lie' }), met(team)]).toEqual([
      true,
      false,
      false,
    ]);
  });

  test('is checked with the place of everything that is wrong', () => {
    const condition: RecordCondition = {
      all: [
        nl,
        { any: [{ of: { field: 'bays' }, test: 'contains', value: 'x' }] },
        { not: { of: { field: 'colour' }, test: 'is', value: 'x' } },
        { of: { field: 'bays' }, test: 'wobbles' },
      ],
    };
    expect(checkCondition(condition, reader({}), SETTING).map(({ at }) => at)).toEqual([
      '/all/1/any/0',
      '/all/2/not',
      '/all/3',
    ]);
  });

  test('is told in words, with labels for options', () => {
    const nameFor = ({ field }: { field: string }) => ({
      label: field,
      options: [{ key: 'press', label: 'Press' }],
    });
    const condition: RecordCondition = {
      all: [nl, { any: [big, { of: { field: 'tags' }, test: 'is-any-of', value: ['press'] }] }],
    };
    expect(describeCondition(condition, nameFor)).toBe(
      'country is nl and (bays is at least 10 or tags is any of Press)',
    );
    const teams = [{ key: 'north', name: 'Builds North' }];
    const inTeam = { of: { field: 'owner' }, test: 'in-team', value: 'north' };
    expect(describeCondition(inTeam, () => ({ label: 'Owner', teams }))).toBe('Owner is in the team Builds North');
    expect(describeCondition({ of: { field: 'at' }, test: 'last-days', value: 7 }, nameFor)).toBe(
      'at is in the last 7 days',
    );
  });

  test('and its opposite never hold together, whatever the value', () => {
    const value = fc.option(fc.oneof(fc.string(), fc.array(fc.string(), { maxLength: 2 })), { nil: null });
    fc.assert(
      fc.property(value, fc.string({ minLength: 1 }), (held, wanted) => {
        for (const [one, other] of [
          ['is', 'is-not'],
          ['contains', 'contains-not'],
        ] as const) {
          const setting = { ...SETTING, type: 'text' as const, caseSensitive: false };
          const [a, b] = [one, other].map((name) => meets(testNamed(name)!.compare(wanted, setting) as Compared, held));
          expect(a).toBe(!b);
        }
      }),
    );
  });
});
