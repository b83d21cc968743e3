import { expect, test } from '@jest/globals';
import { whatChanged, type ComparedSource } from './what-changed';

const figures = (won: number, wonDeals: number, submissions = 10) => ({ won: won * 100, wonDeals, submissions });
const source = (name: string, now: ReturnType<typeof figures>, before: ReturnType<typeof figures>): ComparedSource => ({
  name,
  now,
  before,
});
const told = (...sources: ComparedSource[]) =>
  whatChanged(sources, { currency: 'GBP', dealWords: { one: 'deal', many: 'deals' } });

test('the reason for a change is how many were won, or what each brought, whichever explains more', () => {
  expect(
    told(
      source('Direct', figures(6_000, 6), figures(2_000, 2)),
      source('Paid', figures(1_000, 1), figures(3_000, 1)),
      source('Search', figures(900, 1), figures(1_800, 2)),
    ),
  ).toEqual([
    'Direct brought £ 4,000.00 more: 6 deals won, against 2.',
    'Paid brought £ 2,000.00 less: each deal won brought it £ 1,000.00, against £ 3,000.00.',
    'Search brought £ 900.00 less: 1 deal won, against 2.',
  ]);
});

test('a source that is new, or brings nothing any more, says so', () => {
  expect(
    told(
      source('Fair', figures(500, 1), figures(0, 0)),
      source('Social', figures(0, 0, 0), figures(400, 1)),
      source('E-mail', figures(0, 0, 3), figures(300, 1)),
    ),
  ).toEqual([
    'Fair brought £ 500.00, and nothing before.',
    'Social brought nothing, after £ 400.00 before; nobody came by it any more.',
    'E-mail brought nothing, after £ 300.00 before.',
  ]);
});

test('small changes are not told, and of many the greatest four', () => {
  expect(told(source('Paid', figures(1_000, 2), figures(1_001, 2)))).toEqual([]);
  expect(told()).toEqual([]);
  expect(told(source('Paid', figures(1_000, 2), figures(0, 0)))).toEqual([]);
  const many = Array.from({ length: 9 }, (_, nth) => source(`S${nth}`, figures(100 * (nth + 2), 1), figures(100, 1)));
  expect(told(...many).map((sentence) => sentence.slice(0, 2))).toEqual(['S8', 'S7', 'S6', 'S5']);
});

test('a deal in a currency without a rate counts, and is worth nothing', () => {
  expect(told(source('Paid', figures(0, 3), figures(100, 1)))).toEqual([
    'Paid brought nothing, after £ 100.00 before.',
  ]);
});
