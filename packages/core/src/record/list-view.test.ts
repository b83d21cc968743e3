import { describe, expect, test } from '@jest/globals';
import { destination } from '../testing/example';
import {
  canGroupBy,
  canSortBy,
  checkView,
  listedFields,
  readSort,
  writeSort,
  replaceStageInView,
  viewNamesField,
  viewNamesStage,
  type ListView,
} from './list-view';

const fields = listedFields('deal', destination.fields);
const view: ListView = {
  columns: [{ field: 'name' }, { field: 'number' }],
  filter: {
    all: [
      { of: { field: 'stage' }, test: 'is', value: ['enquiry', 'design'] },
      { not: { any: [{ of: { field: 'stage' }, test: 'is', value: 'won' }] } },
      { of: { field: 'source' }, test: 'is', value: 'design' },
    ],
  },
  sort: { field: 'value', down: true },
  group: 'owner',
};
const check = (change: Partial<ListView>) =>
  checkView({ ...view, ...change }, fields, { now: '2026-03-14', defaultCurrency: 'GBP', teams: {} }).map(
    ({ at }) => at,
  );

describe('a view', () => {
  test('names only what a list of its kind has', () => {
    expect(check({})).toEqual([]);
    expect(check({ columns: [{ field: 'email' }] })).toEqual(['/columns/0']);
    expect(check({ sort: { field: 'message', down: false }, group: 'value' })).toEqual(['/sort/field', '/group']);
    expect(check({ filter: { all: [{ of: { field: 'email' }, test: 'blank' }] } })).toEqual(['/filter/all/0']);
  });

  test('tells which fields and stages it names', () => {
    expect(['name', 'value', 'owner', 'source', 'bays'].map((key) => viewNamesField(view, key))).toEqual([
      true,
      true,
      true,
      true,
      false,
    ]);
    expect(['design', 'won', 'lost'].map((key) => viewNamesStage(view, key))).toEqual([true, true, false]);
  });

  test('takes one stage for another, and leaves other fields alone', () => {
    const after = replaceStageInView(view, 'design', 'quote');
    expect(after.filter).toMatchObject({
      all: [{ value: ['enquiry', 'quote'] }, { not: { any: [{ value: 'won' }] } }, { value: 'design' }],
    });
    expect(replaceStageInView(after, 'quote', 'design')).toEqual(view);
    expect(replaceStageInView(view, 'gone', 'x')).toBe(view);
  });
});

test('every kind of record can be listed by its number and times; texts without end have no order', () => {
  expect(fields.map(({ key }) => key)).toEqual(expect.arrayContaining(['number', 'created_at', 'updated_at', 'bays']));
  const of = (key: string) => fields.find((field) => field.key === key)!;
  expect([canSortBy(of('message')), canSortBy(of('tags')), canSortBy(of('bays'))]).toEqual([false, false, true]);
  expect([canGroupBy(of('tags')), canGroupBy(of('stage')), canGroupBy(of('name'))]).toEqual([true, true, false]);
  expect([readSort('-name'), readSort('name')]).toEqual([
    { field: 'name', down: true },
    { field: 'name', down: false },
  ]);
  expect(['-name', 'name'].map((text) => writeSort(readSort(text)))).toEqual(['-name', 'name']);
});
