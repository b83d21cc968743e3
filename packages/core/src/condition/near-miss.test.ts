import { expect, test } from '@jest/globals';
import type { ConditionOn } from './condition';
import { nearMiss } from './near-miss';

type Of = { field: string };
const values: Record<string, string | string[]> = {
  town: 'Ilkley',
  street: 'St. Mary’s',
  likes: ['Moss', 'Tree fern'],
  name: 'Zoë',
};
const reader = { typeOf: () => 'text' as const, valueOf: ({ field }: Of) => values[field] ?? null };
const setting = { now: '2026-03-14T09:30:00.000Z', defaultCurrency: 'GBP', teams: {} };
const is = (field: string, value: string | string[], caseSensitive = false) => ({
  of: { field },
  test: 'is',
  value,
  caseSensitive,
});
const differs = (condition: ConditionOn<Of>) => nearMiss(condition, reader, setting)?.differs ?? null;

test.each<[ConditionOn<Of>, 'capitals' | 'writing' | null]>([
  [is('town', 'ilkley'), null],
  [is('town', 'ilkley', true), 'capitals'],
  [is('town', 'Il-kley'), 'writing'],
  [is('street', 'st marys'), 'writing'],
  [is('name', 'zoe'), 'writing'],
  [is('likes', 'tree-fern'), 'writing'],
  [is('town', 'Otley'), null],
  [is('gone', 'Otley'), null],
  [{ all: [is('town', 'Ilkley'), is('street', 'st marys')] }, 'writing'],
  [{ all: [is('town', 'Otley'), is('street', 'st marys')] }, null],
  [{ any: [is('town', 'Otley'), is('town', 'IL KLEY')] }, 'writing'],
  [{ of: { field: 'town' }, test: 'blank' }, null],
])('%j: %s', (condition, how) => expect(differs(condition)).toBe(how));
