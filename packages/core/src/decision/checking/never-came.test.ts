import { expect, test } from '@jest/globals';
import { destination as example } from '../../testing/example';
import type { CellTest, DecisionTable } from '../decision-table';
import { neverCame } from './never-came';

const destination = { ...example, valueSets: { north: { name: 'North', values: ['Leeds', 'York'] } } };
const around = { destination, writes: [], tables: [] };
const CAME: Record<string, readonly string[] | null> = {
  town: ['Leeds', 'hull', 'NL'],
  bays: ['3', '7 bays', 'a few'],
  many: null,
};
const found = (answer: string, cell: CellTest, more: object = {}) => {
  const table: DecisionTable = {
    name: 'T',
    inputs: [{ of: { answer }, label: answer, ...more }],
    outputs: [],
    rows: [
      { when: [null], then: {} },
      { when: [cell], then: {} },
    ],
  };
  return neverCame(table, around, (key) => CAME[key] ?? null);
};

test.each<[string, string, CellTest, object, boolean]>([
  ['a town that came, in other capitals', 'town', { test: 'is', value: 'HULL' }, {}, false],
  ['one of several that came', 'town', { test: 'is-any-of', value: ['York', 'Leeds'] }, {}, false],
  ['a town that never came', 'town', { test: 'is', value: 'Leedz' }, {}, true],
  ['a beginning that never came', 'town', { test: 'starts-with', value: 'Le' }, {}, false],
  ['a set of which one came', 'town', { test: 'in-set', value: 'north' }, {}, false],
  ['anything else', 'town', { test: 'is-not', value: 'Leedz' }, {}, false],
  ['nothing', 'town', { test: 'blank' }, {}, false],
  ['a number that came', 'bays', { test: 'at-least', value: 5 }, { as: 'number' }, false],
  ['a number that never did', 'bays', { test: 'at-least', value: 8 }, { as: 'number' }, true],
  ['an answer of which not all is known', 'many', { test: 'is', value: 'x' }, {}, false],
  ['an answer that never came', 'other', { test: 'is', value: 'x' }, {}, false],
  [
    'a region that goes by its postal code',
    'town',
    { test: 'in-set', value: 'north' },
    { as: 'region', postcode: { answer: 'code' } },
    false,
  ],
])('%s', (_, answer, cell, more, isFound) => {
  expect(found(answer, cell, more)).toEqual(isFound ? [{ row: 1, column: 0, came: CAME[answer] }] : []);
});
