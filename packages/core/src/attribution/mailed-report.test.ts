import { expect, test } from '@jest/globals';
import { ADDED, COUNTED, CREDITED, type Figures } from './credit-tree';
import { mailedReport, type MailedReport } from './mailed-report';

const figures = (some: Partial<Figures>) =>
  ({ ...Object.fromEntries([...ADDED, ...COUNTED, ...CREDITED].map((figure) => [figure, 0])), ...some }) as Figures;
const report: MailedReport = {
  name: 'Paid alone',
  days: { from: '2026-11-23', to: '2026-11-29' },
  currency: 'GBP',
  dealWords: { one: 'deal', many: 'deals' },
  figures: ['submissions', 'deals', 'wonDeals', 'won'],
  total: figures({ submissions: 1_200, deals: 4, wonDeals: 2, won: 1_234_56, cost: 5 }),
  before: figures({ submissions: 1_200, deals: 2, won: 2_469_12 }),
  rows: [{ name: 'paid', figures: figures({ deals: 4, wonDeals: 1, won: 1_234_56, cost: 7 }) }],
  allRows: 3,
  link: 'https://crm.example/sources',
};

test('a mailed report says each figure against the period before, and the first rows', () => {
  const { subject, text } = mailedReport(report);
  expect(subject).toBe('Paid alone: £ 1,234.56 won, 2026-11-23 to 2026-11-29');
  expect(text.split('\n')).toEqual(
    expect.arrayContaining([
      'Submissions: 1,200 (as before)',
      'New deals: 4 (+100 %)',
      'Won deals: 2',
      'Won value: £ 1,234.56 (−50 %)',
      '- Paid: £ 1,234.56 won by 1 deal, 4 new deals',
      '- and 2 more, in the file',
      'All of it: https://crm.example/sources',
    ]),
  );
  expect(text).not.toContain('Cost');
});

test('a report of nothing says so, and has no link where the server knows none', () => {
  const { text } = mailedReport({ ...report, total: figures({}), rows: [], allRows: 0, link: null });
  expect(text).toContain('Nothing came in this period.');
  expect(text).not.toContain('All of it');
});
