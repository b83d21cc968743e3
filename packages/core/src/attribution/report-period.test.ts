import { expect, test } from '@jest/globals';
import { comparedDays, daysOf } from './report-period';

const TODAY = Date.parse('2026-02-10T15:00:00Z');

test.each([
  ['last-week', '2026-02-02', '2026-02-08'],
  ['30', '2026-01-12', '2026-02-10'],
  ['quarter', '2026-01-01', '2026-02-10'],
  ['last-quarter', '2025-10-01', '2025-12-31'],
  ['year', '2026-01-01', '2026-02-10'],
  ['last-year', '2025-01-01', '2025-12-31'],
  ['2025-03-01..2025-03-31', '2025-03-01', '2025-03-31'],
  ['2025-03-31..2025-03-01', '2025-11-13', '2026-02-10'],
  ['2025-02-30..2025-03-01', '2025-11-13', '2026-02-10'],
  ['whenever', '2025-11-13', '2026-02-10'],
  [null, '2025-11-13', '2026-02-10'],
])('%s is from %s to %s', (named, from, to) => expect(daysOf(named, TODAY)).toEqual({ from, to }));

test('is compared with as many days before it, or with a year before', () => {
  expect(comparedDays({ from: '2026-03-01', to: '2026-03-10' }, 'before')).toEqual({
    from: '2026-02-19',
    to: '2026-02-28',
  });
  expect(comparedDays({ from: '2024-02-01', to: '2024-02-29' }, 'year')).toEqual({
    from: '2023-02-01',
    to: '2023-02-28',
  });
});
