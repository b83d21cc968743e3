import { describe, expect, test } from '@jest/globals';
import type { FormMonth, IntakeLine } from '@haycart/api';
import { completionOf, shownLines, type IntakeSort } from './intake-lines';

const line = (key: string, name: string, more: Partial<IntakeLine> = {}): IntakeLine => ({
  id: key,
  key,
  kind: 'form',
  settings: {},
  name,
  state: 'live',
  slug: key,
  signed: false,
  perMinute: 600,
  address: `/f/${key}`,
  form: null,
  version: 1,
  archived: false,
  forColleagues: false,
  trial: null,
  closedMessage: null,
  source: {},
  month: Array.from({ length: 30 }, () => 0),
  submissions: 0,
  failed: 0,
  filesTaken: 0,
  lastAt: null,
  routes: [],
  ...more,
});
const month = (key: string, views: number, starts: number, sends: number): FormMonth => ({
  key,
  views,
  starts,
  sends,
  pages: [],
});

const INTAKES = [
  line('survey', 'Site survey', { submissions: 12, lastAt: '2026-03-14T10:00:00Z' }),
  line('survey2', 'Site survey 2', { submissions: 3, lastAt: '2026-03-15T10:00:00Z', state: 'draft' }),
  line('dealers', 'dealer application', { kind: 'endpoint', submissions: 40 }),
  line('old', 'Spring show', { archived: true, state: 'closed', submissions: 900 }),
];
const MONTHS = [month('survey', 200, 90, 50), month('survey2', 10, 9, 8)];
const keys = (wish: Partial<Parameters<typeof shownLines>[2]>) =>
  shownLines(INTAKES, MONTHS, { find: '', archived: false, sort: null, ...wish }).map(({ key }) => key);

describe('the list of intakes', () => {
  test('leaves out the archived, unless they are asked for', () => {
    expect(keys({})).toEqual(['survey', 'survey2', 'dealers']);
    expect(keys({ archived: true })).toContain('old');
  });

  test.each([
    ['SITE', ['survey', 'survey2']],
    [' dealer ', ['dealers']],
    ['survey2', ['survey2']],
    ['nothing', []],
  ])('finds by a part of the name or key: %j', (find, found) => expect(keys({ find })).toEqual(found));

  test('marks those with nearly the same name', () => {
    const lines = shownLines(INTAKES, MONTHS, { find: '', archived: true, sort: null });
    expect(lines.map(({ key, like }) => [key, like])).toEqual([
      ['survey', 'Site survey 2'],
      ['survey2', 'Site survey'],
      ['dealers', undefined],
      ['old', undefined],
    ]);
  });

  test.each<[IntakeSort, string[]]>([
    ['name', ['dealers', 'survey', 'survey2']],
    ['kind', ['dealers', 'survey', 'survey2']],
    ['state', ['survey2', 'survey', 'dealers']],
    ['views', ['dealers', 'survey2', 'survey']],
    ['starts', ['dealers', 'survey2', 'survey']],
    ['sends', ['dealers', 'survey2', 'survey']],
    ['completion', ['dealers', 'survey', 'survey2']],
    ['submissions', ['survey2', 'survey', 'dealers']],
    ['last', ['dealers', 'survey', 'survey2']],
  ])('is sorted by %s', (field, order) => expect(keys({ sort: { field, down: false } })).toEqual(order));

  test('is sorted the other way round', () =>
    expect(keys({ sort: { field: 'submissions', down: true } })).toEqual(['dealers', 'survey', 'survey2']));
});

test.each([
  [undefined, null],
  [month('a', 0, 0, 0), null],
  [month('a', 200, 90, 50), 0.25],
  [month('a', 1, 1, 2), 1],
])('completion of %j is %j', (figures, completion) => expect(completionOf({ figures })).toBe(completion));
