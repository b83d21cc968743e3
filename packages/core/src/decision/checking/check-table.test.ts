import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { destination } from '../../testing/example';
import type { FieldValue } from '../../diff/record';
import { cellSetting, decide, readyTable } from '../decide';
import type { CellTest, DecisionTable } from '../decision-table';
import { checkDecisions } from './check-table';

const around = {
  destination: {
    ...destination,
    valueSets: {
      north: { name: 'North', values: ['Leeds', 'York', 'Hull'] },
      nobody: { name: 'Nobody', values: [] },
      lowlands: { name: 'Lowlands', values: ['NL', 'BE', 'DE 40-49'] },
    },
  },
  writes: [],
  tables: [],
};
const setting = cellSetting(around.destination, '2026-01-01T00:00:00.000Z');

const INPUTS: DecisionTable['inputs'] = [
  { of: { answer: 'town' }, label: 'Town' },
  { of: { answer: 'bays' }, label: 'Bays', as: 'number' },
  { of: { answer: 'customer' }, label: 'Customer already', as: 'yes-no' },
];
const table = (rows: (CellTest | null)[][], more: Partial<DecisionTable> = {}): DecisionTable => ({
  name: 'who',
  inputs: INPUTS,
  outputs: [{ name: 'who', type: 'text' }],
  rows: rows.map((when, row) => ({ when, then: { who: `row ${row}` } })),
  ...more,
});
const is = (value: string | string[]) => ({ test: 'is', value });
const atLeast = (value: number) => ({ test: 'at-least', value });
const below = (value: number) => ({ test: 'below', value });
const ANY = null;

describe('the check of a table', () => {
  test('finds a row that those before it leave nothing, and names the fewest of them', () => {
    const { rows } = checkDecisions(
      table([
        [is('Hull'), ANY, ANY],
        [is('Leeds'), below(4), ANY],
        [is('Leeds'), atLeast(4), ANY],
        [is('Leeds'), { test: 'filled' }, { test: 'yes' }],
        [ANY, ANY, ANY],
      ]),
      around,
    );
    expect(rows).toEqual([{ row: 3, takenBefore: [1, 2] }]);
  });

  test('gives a gap by the fewest values, and says no more once all is taken', () => {
    const open = table([
      [{ test: 'in-set', value: 'north' }, atLeast(4), ANY],
      [{ test: 'not-in-set', value: 'north' }, ANY, ANY],
    ]);
    expect(checkDecisions(open, around).gaps).toEqual([
      {
        example: [
          { column: 0, words: 'Leeds' },
          { column: 1, words: 'under 4' },
        ],
      },
    ]);
    const closed = table([...open.rows.map(({ when }) => when), [ANY, { test: 'blank' }, ANY], [ANY, below(4), ANY]]);
    expect(checkDecisions(closed, around)).toMatchObject({ gaps: [], rows: [], finished: true });
  });

  test('tells rows that overlap and say different things, but not a rule with its exception before it', () => {
    const found = checkDecisions(
      table([
        [is('Leeds'), ANY, ANY],
        [ANY, atLeast(8), ANY],
        [ANY, ANY, ANY],
      ]),
      around,
    );
    expect(found.overlaps).toEqual([
      {
        rows: [0, 1],
        example: [
          { column: 0, words: 'Leeds' },
          { column: 1, words: '8' },
        ],
      },
    ]);
    const one = checkDecisions(
      table(
        [
          [is('Leeds'), ANY, ANY],
          [ANY, ANY, ANY],
        ],
        { fits: 'one' },
      ),
      around,
    );
    expect(one.overlaps.map(({ rows }) => rows)).toEqual([[0, 1]]);
  });

  test('claims nothing of patterns, and says which cells they are', () => {
    const found = checkDecisions(
      table([
        [{ test: 'contains', value: 'l' }, ANY, ANY],
        [{ test: 'contains-not', value: 'l' }, ANY, ANY],
        [is('Hull'), ANY, ANY],
        [is('York'), ANY, ANY],
      ]),
      around,
    );
    expect(found.unsure).toEqual([
      { row: 0, column: 0 },
      { row: 1, column: 0 },
    ]);
    // Of the towns that are named it is known.
    expect(found.rows).toEqual([
      { row: 2, takenBefore: [0] },
      { row: 3, takenBefore: [1] },
    ]);
    expect(found.gaps).toEqual([]);
  });

  test('finds cells that can never be met, and those that cannot be read', () => {
    const found = checkDecisions(
      table([
        [{ test: 'in-set', value: 'nobody' }, ANY, ANY],
        [{ test: 'in-set', value: 'gone' }, ANY, ANY],
        [ANY, { test: 'between', value: [9, 4] }, ANY],
        [ANY, { test: 'at-least', value: 'many' }, ANY],
      ]),
      around,
    );
    expect(found.rows).toEqual([
      { row: 0, never: [0] },
      {
        row: 1,
        unreadable: [{ column: 0, text: 'There is no value set “gone”. Choose another, or make it in Set up.' }],
      },
      { row: 2, never: [1] },
      { row: 3, unreadable: [{ column: 1, text: 'Type a number.' }] },
    ]);
  });

  test('and deciding take sets of ten thousand values in five hundred rows', () => {
    const values = Array.from({ length: 10_000 }, (_, n) => `Town ${n}`);
    const many = { ...around, destination: { ...around.destination, valueSets: { many: { name: 'Many', values } } } };
    const rows = Array.from({ length: 500 }, (_, n) => [{ test: 'in-set', value: 'many' }, atLeast(500 - n), ANY]);
    const large = table(rows);
    expect(checkDecisions(large, many)).toMatchObject({ rows: [], finished: true });
    const ready = readyTable(large, many);
    expect(decide(ready, ['TOWN 9999', 1, null], cellSetting(many.destination, '')).row).toBe(499);
    expect(decide(ready, ['Town 10000', 900, null], cellSetting(many.destination, '')).row).toBeNull();
  });

  test('reasons about regions, days and times of day', () => {
    const regions = {
      ...table([]),
      inputs: [
        { of: { answer: 'country' }, label: 'Country', as: 'region' as const, postcode: { answer: 'postcode' } },
        { of: { visit: 'receivedAt' }, label: 'Arrives', as: 'time-of-day' as const },
      ],
      rows: [
        {
          when: [
            { test: 'in-set', value: 'lowlands' },
            { test: 'below', value: 540 },
          ],
          then: {},
        },
        {
          when: [
            { test: 'in-set', value: 'lowlands' },
            { test: 'at-least', value: 540 },
          ],
          then: {},
        },
        { when: [is('DE 45000'), null], then: {} },
        { when: [is('DE'), null], then: {} },
        {
          when: [
            { test: 'is-not', value: ['DE', 'NL', 'BE'] },
            { test: 'at-most', value: 1_439 },
          ],
          then: {},
        },
      ],
    };
    expect(checkDecisions(regions, around)).toMatchObject({ rows: [{ row: 2, takenBefore: [0, 1] }], gaps: [] });
  });
});

const TOWNS = ['Leeds', 'York', 'Hull', 'Bath', null];
const BAYS = [0, 3, 4, 5, 8, 9, null];
const CUSTOMER = [true, false, null];
const cell = (...tests: CellTest[]) => fc.option(fc.constantFrom(...tests), { nil: null, freq: 3 });
const row = fc.tuple(
  cell(
    is('Leeds'),
    is(['York', 'hull']),
    { test: 'is-not', value: 'Leeds' },
    { test: 'in-set', value: 'north' },
    { test: 'not-in-set', value: 'north' },
    { test: 'blank' },
    { test: 'filled' },
  ),
  cell(
    atLeast(4),
    below(4),
    { test: 'between', value: [4, 8] },
    { test: 'above', value: 8 },
    { test: 'at-most', value: 8 },
    { test: 'is-number', value: 5 },
    { test: 'blank' },
  ),
  cell({ test: 'yes' }, { test: 'no' }, { test: 'filled' }),
);

describe('against every value there is', () => {
  // Every value that a cell tells apart is among these, so trying them all is trying everything.
  const points = TOWNS.flatMap((town) => BAYS.flatMap((bays) => CUSTOMER.map((customer) => [town, bays, customer])));

  test('a row is said to be taken before just where no value leads to it, and a gap just where one leads to none', () => {
    fc.assert(
      fc.property(fc.array(row, { maxLength: 9 }), (rows) => {
        const tried = table(rows);
        const decided = points.map((point) => decide(readyTable(tried, around), point as FieldValue[], setting).row);
        const found = checkDecisions(tried, around);
        const never = rows.flatMap((_, index) => (decided.includes(index) ? [] : [index]));
        expect(found.finished).toBe(true);
        expect(found.rows.map((one) => one.row)).toEqual(never);
        expect(found.gaps.length > 0).toBe(decided.includes(null));
        for (const { row: one, takenBefore } of found.rows) {
          const fewer = table([...takenBefore!.map((before) => rows[before]!), rows[one]!]);
          const left = points.map((point) => decide(readyTable(fewer, around), point as FieldValue[], setting).row);
          expect(left).not.toContain(takenBefore!.length);
        }
      }),
      { numRuns: 400 },
    );
  });

  test('two rows are said to overlap just where a value fits both, each has its own, and they are reached', () => {
    fc.assert(
      fc.property(fc.array(row, { maxLength: 6 }), (rows) => {
        const alone = rows.map((when) => {
          const ready = readyTable(table([when]), around);
          return points.map((point) => decide(ready, point as FieldValue[], setting).row === 0);
        });
        const found = checkDecisions(table(rows), around);
        const dead = new Set(found.rows.map((one) => one.row));
        const expected: [number, number][] = [];
        for (let later = 0; later < rows.length; later += 1)
          for (let earlier = 0; earlier < later; earlier += 1) {
            if (dead.has(earlier) || dead.has(later)) continue;
            const both = points.some((_, at) => alone[earlier]![at] && alone[later]![at]);
            const exception = points.every((_, at) => !alone[earlier]![at] || alone[later]![at]);
            if (both && !exception) expected.push([earlier, later]);
          }
        expect(found.overlaps.map((one) => one.rows)).toEqual(expected);
      }),
      { numRuns: 200 },
    );
  });
});
