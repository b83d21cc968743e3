import { expect, test } from '@jest/globals';
import type { SourcesReport } from '@haycart/api';
import { ADDED, COUNTED, CREDITED, type Figure, type Figures } from '@haycart/core';
import { columnsOf, perWord } from './source-columns';

const ALL: Figure[] = [...ADDED, ...COUNTED, ...CREDITED];
const figures = (some: Partial<Figures>) =>
  ({ ...Object.fromEntries(ALL.map((figure) => [figure, 0])), ...some }) as Figures;
const heads = (told: Figure[], total: Partial<Figures>) =>
  columnsOf({ figures: told, total: figures(total) } as SourcesReport, 'opportunity', 'deals').map(({ head }) => head);

test('columns in which nothing stands are left out, but for submissions, deals and what was won', () => {
  expect(heads(ALL, {})).toEqual(['Submissions', 'New contacts', 'Opportunities', 'Value', 'Won', 'Won value']);
  expect(heads(ALL, { views: 3, qualified: 1, wonDeals: 2, cost: 5 })).toEqual([
    'Form views',
    'Submissions',
    'New contacts',
    'Qualified',
    'Opportunities',
    'Value',
    'Won',
    'Days to won',
    'Won value',
    'Cost',
    'Per opportunity',
  ]);
});

test('a report that tells of deals alone has no column of people', () => {
  expect(heads(['deals', 'wonDeals', 'wonDays', 'value', 'won'], { submissions: 9, wonDeals: 1 })).toEqual([
    'Opportunities',
    'Value',
    'Won',
    'Days to won',
    'Won value',
  ]);
});

test('what is worked out from several figures is blank where one of them is nothing', () => {
  const columns = columnsOf(
    { figures: ALL, total: figures({ wonDeals: 1, cost: 1 }) } as SourcesReport,
    'deal',
    'wonDeals',
  );
  const told = (head: string, row: Partial<Figures>) =>
    columns.find((column) => column.head === head)!.worked!(figures(row), 'GBP');
  expect(told('Days to won', { wonDays: 91, wonDeals: 2 })).toBe('46');
  expect(told('Days to won', { wonDays: 9, wonDeals: 2 })).toBe('4.5');
  expect(told('Days to won', {})).toBe('');
  expect(told('Per won deal', { cost: 100_00, wonDeals: 3 })).toBe('£ 33.33');
  expect(told('Per won deal', { cost: 100_00 })).toBe('');
  expect(perWord('qualified', 'deal')).toBe('qualified lead');
});
