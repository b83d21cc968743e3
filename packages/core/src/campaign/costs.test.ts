import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { daysBetween, MOST_COST_DAYS, spreadCost } from './cost';
import { readCostsCsv } from './costs-csv';

describe('a cost of several days', () => {
  test('is spread over them to the last minor unit', () =>
    fc.assert(
      fc.property(fc.nat(10_000_000), fc.integer({ min: 1, max: 400 }), (amount, count) => {
        const days = daysBetween('2026-01-31', new Date(Date.UTC(2026, 0, 30 + count)).toISOString().slice(0, 10));
        const spread = spreadCost(amount, days);
        expect(spread).toHaveLength(count);
        expect(spread.reduce((sum, one) => sum + one.amount, 0)).toBe(amount);
        const amounts = spread.map((one) => one.amount);
        expect(Math.max(...amounts) - Math.min(...amounts)).toBeLessThanOrEqual(1);
      }),
    ));

  test.each([
    ['2026-02-28', '2026-03-01', 2],
    ['2028-02-28', '2028-03-01', 3],
    ['2026-03-02', '2026-03-01', 0],
    ['2020-01-01', '2026-01-01', 0],
    ['nonsense', '2026-01-01', 0],
  ])('from %s to %s is of %i days', (from, to, count) => {
    expect(daysBetween(from, to)).toHaveLength(count);
    expect(count).toBeLessThanOrEqual(MOST_COST_DAYS);
  });
});

describe('a file of costs', () => {
  const read = (text: string) => readCostsCsv(text, 'GBP');

  test.each<[string, object]>([
    [
      'Day,Campaign,Cost\n2026-03-01,spring,12.50',
      { from: '2026-03-01', to: '2026-03-01', amount: 12_50, currency: 'GBP' },
    ],
    [
      'Datum;Kampagne;Kosten;Währung\n13.03.2026;spring;"1.234,56";EUR',
      { from: '2026-03-13', amount: 1_234_56, currency: 'EUR' },
    ],
    ['fecha;campaña;coste\n01/03/2026;spring;€ 7', { amount: 7_00, currency: 'EUR' }],
    [
      '\uFEFFdate\tcampaign name\tspend (GBP)\tclicks\n3/13/2026\tspring\t£1,200\t8',
      { from: '2026-03-13', amount: 1_200_00 },
    ],
    [
      'From,To,Campaign,Amount,Source,Medium\n2026-03-01,2026-03-31,spring,100,fair,print',
      { to: '2026-03-31', source: 'fair', medium: 'print' },
    ],
    ['Day,Campaign,Cost\n2026-03-01,春のカタログ,5', { campaign: '春のカタログ' }],
  ])('as %j', (text, row) => {
    const found = read(text);
    expect(found).toMatchObject({ rows: [{ row: 1, campaign: 'spring', ...row }], refused: [] });
  });

  test('tells each row that cannot be read, and why', () =>
    expect(
      read('Day,Campaign,Cost\n2026-03-01,,5\nsoon,a,5\n2026-03-01,a,much\n2026-03-01,a,-5\n2026-03-01,a,5'),
    ).toMatchObject({
      rows: [{ row: 5 }],
      refused: [
        { row: 1, text: 'It names no campaign.' },
        { row: 2, text: '“soon” is no day.' },
        { row: 3, text: '“much” is no cost.' },
        { row: 4, text: '“-5” is no cost.' },
      ],
    }));

  test.each([
    ['Day,Campaign\n2026-03-01,a', 'no column “Cost”'],
    ['', 'no column “Campaign”'],
    ['Day,Campaign,Cost\n"2026', 'cannot be read as CSV'],
    ['x'.repeat(5_000_001), 'larger than costs are'],
    [`Day,Campaign,Cost\n"${'x'.repeat(6_000)}`, 'longer than a row'],
  ])('is refused: %#', (text, why) => expect(read(text)).toContain(why));
});
