import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { converted, type ExchangeRate } from '../../destination/rates';
import { CREDIT_MODELS } from '../models/registry';
import { creditedMonths } from './credited-months';
import { creditedRecords } from './credited-records';
import { creditedSums, peopleSums } from './credited-sums';
import type { CreditWish } from './each-deal';
import { JourneyColumns } from './journey-columns';
import { DAY, lastOfEach, plainRecord, portionOf, type PlainRecord } from './testing';
import { worthIn } from './worth';

const RATES: ExchangeRate[] = [
  { currency: 'EUR', from: '2022-01-01', rate: '0.8532' },
  { currency: 'EUR', from: '2023-03-01', rate: '0.9' },
];

const wishes = fc.record({
  model: fc.constantFrom(...CREDIT_MODELS),
  basis: fc.integer({ min: 0, max: 2 }),
  window: fc.option(fc.integer({ min: 1, max: 365 })),
  halfLife: fc.integer({ min: 1, max: 60 }),
  from: fc.integer({ min: 19_000, max: 19_600 }),
  days: fc.integer({ min: 1, max: 500 }),
  among: fc.option(fc.uint8Array({ minLength: 20, maxLength: 31, max: 1 })),
});

/** Records with a wish about them, in columns and as plain objects. */
const cases = fc.tuple(fc.array(plainRecord, { maxLength: 25 }).map(lastOfEach), wishes).map(([records, asked]) => {
  const { model, basis, window, halfLife, from, days, among } = asked;
  const period = { from: from * DAY, to: (from + days) * DAY };
  const wish: CreditWish = {
    ...{ ...period, basis, model, settings: { halfLife }, window, among },
    worth: worthIn('GBP', RATES),
  };
  const columns = new JourneyColumns();
  columns.put(portionOf(records));
  const meant = records.filter(({ nr }) => !among || among[nr]);
  return { columns, wish, meant };
});

const isIn = (time: number | null, { from, to }: CreditWish): time is number =>
  time !== null && time >= from && time < to;
const close = (one: number, other: number) => Math.abs(one - other) <= 1e-6 * Math.max(1, Math.abs(one));

/** What each touch that counts is credited with, worked out by hand of one deal. */
function creditOf({ journeys, madeAt }: PlainRecord, { basis, window, model, settings }: CreditWish) {
  const counts = journeys[basis]!.filter(({ at }) => window === null || at >= madeAt - window * DAY).toReversed();
  if (!counts.length) return [{ source: 0, share: 1 }];
  const shares = model.shares(
    counts.map(({ at }) => at * 1_000),
    settings,
  );
  return counts.map(({ source }, nth) => ({ source, share: shares[nth]! }));
}

function worthOf({ amount, currency }: PlainRecord, at: number): number | null {
  if (amount === null) return 0;
  return converted({ amount, currency }, 'GBP', new Date(at * 1_000).toISOString().slice(0, 10), RATES)?.amount ?? null;
}

test('sums by source are those of each deal by itself, and add up to what is shared out', () =>
  fc.assert(
    fc.property(cases, ({ columns, wish, meant }) => {
      const { rows, totals, withoutRate } = creditedSums(columns, wish, null);
      const deals = meant.filter(({ kind }) => kind === 'deal');
      const [made, won] = [
        deals.filter((deal) => isIn(deal.madeAt, wish)),
        deals.filter((deal) => isIn(deal.wonAt, wish)),
      ];
      const sumOf = (source: number, of: PlainRecord[], at: 'madeAt' | 'wonAt') =>
        of.reduce(
          (sum, deal) =>
            creditOf(deal, wish)
              .filter((one) => one.source === source)
              .reduce((all, { share }) => all + share * (worthOf(deal, deal[at]!) ?? 0), sum),
          0,
        );
      for (let source = 0; source <= 4; source += 1) {
        const own = rows.filter((row) => (row.source ?? 0) === source);
        const sum = (key: 'value' | 'won' | 'deals') => own.reduce((all, row) => all + row[key], 0);
        expect([source, close(sum('value'), sumOf(source, made, 'madeAt'))]).toEqual([source, true]);
        expect([source, close(sum('won'), sumOf(source, won, 'wonAt'))]).toEqual([source, true]);
        const touches = made.flatMap((deal) => creditOf(deal, wish)).filter((one) => one.source === source);
        expect(sum('deals')).toBe(touches.length);
      }
      expect(
        close(
          totals.won,
          rows.reduce((all, row) => all + row.won, 0),
        ),
      ).toBe(true);
      expect(
        close(
          totals.value,
          rows.reduce((all, row) => all + row.value, 0),
        ),
      ).toBe(true);
      // At the last touch each deal counts once, unless its last touch is not within the window.
      if (wish.window === null)
        expect(rows.reduce((all, row) => all + (row.level === 5 ? row.wonDeals : 0), 0)).toBe(won.length);
      const lacks = deals.filter(
        (deal) =>
          (isIn(deal.madeAt, wish) && worthOf(deal, deal.madeAt) === null) ||
          (isIn(deal.wonAt, wish) && worthOf(deal, deal.wonAt) === null),
      );
      expect([...withoutRate.values()].reduce((all, count) => all + count, 0)).toBe(lacks.length);
    }),
  ));

test('months add up to the sums by source', () =>
  fc.assert(
    fc.property(cases, ({ columns, wish }) => {
      const { rows, totals } = creditedMonths(columns, wish);
      const sums = creditedSums(columns, wish, null);
      for (let source = 0; source <= 4; source += 1) {
        const won = (of: readonly { source: number | null; won: number }[]) =>
          of.filter((row) => (row.source ?? 0) === source).reduce((all, row) => all + row.won, 0);
        expect(close(won(rows), won(sums.rows))).toBe(true);
      }
      expect(
        close(
          [...totals.values()].reduce((all, one) => all + one, 0),
          sums.totals.won,
        ),
      ).toBe(true);
      for (const { month } of rows) expect(month).toMatch(/^20\d\d-\d\d$/);
    }),
  ));

test('the records behind a figure are as many as it says, and their credit adds up to it', () =>
  fc.assert(
    fc.property(cases, fc.uniqueArray(fc.integer({ min: 0, max: 4 })), ({ columns, wish }, asked) => {
      const partOf = Int32Array.from({ length: 20 }, (_, nr) => nr % 3);
      const sums = creditedSums(columns, wish, partOf);
      for (const is of [0, 1, 2]) {
        const behind = { figure: 'won' as const, sources: new Set(asked), part: { of: partOf, is }, most: 100 };
        const { total, records } = creditedRecords(columns, wish, behind);
        const rows = sums.rows.filter((row) => row.part === is && asked.includes(row.source ?? 0));
        expect(records).toHaveLength(total);
        expect(
          close(
            records.reduce((all, { credited }) => all + (credited ?? 0), 0),
            rows.reduce((all, { won }) => all + won, 0),
          ),
        ).toBe(true);
        const credits = records.map(({ credited }) => credited ?? -1);
        expect(credits).toEqual([...credits].sort((one, other) => other - one));
        expect(creditedRecords(columns, wish, { ...behind, most: 2 })).toEqual({ total, records: records.slice(0, 2) });
      }
    }),
  ));

test('contacts count when they were made, leads when they were qualified, by their own touches', () =>
  fc.assert(
    fc.property(cases, ({ columns, wish, meant }) => {
      const rows = peopleSums(columns, wish, null);
      const last = (key: 'contacts' | 'qualified') =>
        rows.reduce((all, row) => all + (row.level === 5 ? row[key] : 0), 0);
      expect(last('contacts')).toBe(meant.filter((one) => one.kind === 'contact' && isIn(one.madeAt, wish)).length);
      expect(last('qualified')).toBe(meant.filter((one) => one.kind === 'lead' && isIn(one.wonAt, wish)).length);
    }),
  ));
