import type { Comparator } from './comparator';

/** The days over which two dates are half alike. */
const HALF_DAYS = 14;
const DAY_MS = 86_400_000;

/** How near two numbers are: one minus their difference to the greater of both. */
export function numberLikeness(one: number, other: number): number {
  if (one === other) return 1;
  const greater = Math.max(Math.abs(one), Math.abs(other));
  return Math.max(0, 1 - Math.abs(one - other) / greater);
}

/** How near two times (ISO 8601) are: 1 at once, a half after two weeks. */
export function timeLikeness(one: string, other: string): number {
  const days = Math.abs(Date.parse(one) - Date.parse(other)) / DAY_MS;
  return Number.isNaN(days) ? 0 : 2 ** (-days / HALF_DAYS);
}

export const numberComparator: Comparator = {
  name: 'number-distance',
  label: 'Near in number',
  description: 'Amounts and counts: one minus the difference to the greater of the two.',
  alike: (one, other) => (one.trim() && other.trim() ? numberLikeness(Number(one), Number(other)) || 0 : 0),
  examples: [
    ['100', '100', 1],
    ['90', '100', 0.9],
    ['0', '5', 0],
  ],
};

export const dateComparator: Comparator = {
  name: 'date-distance',
  label: 'Near in time',
  description: 'Dates and times (ISO 8601): halved with every two weeks between them.',
  alike: timeLikeness,
  examples: [
    ['2026-03-01', '2026-03-01', 1],
    ['2026-03-01', '2026-03-15', 0.5],
    ['2026-03-01', '2026-03-29', 0.25],
  ],
};
