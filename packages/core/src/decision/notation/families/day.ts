import { dayAfter } from '../../../condition/wanted';
import { readDate } from '../../../reading/date-text';
import type { FamilyNotation } from '../family-notation';
import { afterWords, bothEnds } from '../prefix';
import { listOf } from './lists';

export const day: FamilyNotation = {
  examples: ['2027-03-14', 'from 2027-03-14', 'before 2027-03-14', '2027-03-01 to 2027-03-31', 'in the last 7 days'],
  read(typed) {
    const days = /^(?:in the )?(last|next) (\d{1,5}) days?$/i.exec(typed);
    if (days) return { test: `${days[1]!.toLowerCase()}-days`, value: Number(days[2]) };
    const ends = bothEnds(typed);
    if (ends) {
      const [first, last] = ends.map(dateTyped);
      if (!first || !last) return 'Type two days, such as 2027-03-01 to 2027-03-31.';
      return first > last ? 'The period ends before it begins.' : { test: 'in-period', value: [first, last] };
    }
    const found = afterWords(typed, DAY_WORDS);
    const date = dateTyped(found?.rest ?? typed);
    if (!date) return 'Type a day, such as 2027-03-14, or from, before or until a day.';
    if (found?.test === 'until') return { test: 'before', value: dayAfter(date, 1) };
    if (found?.test === 'after') return { test: 'from', value: dayAfter(date, 1) };
    return { test: found?.test ?? 'on', value: date };
  },
  show({ test, value }) {
    if (test === 'last-days' || test === 'next-days') return `in the ${test.slice(0, 4)} ${String(value)} days`;
    if (test === 'in-period') return listOf(value).join(' to ');
    if (test === 'on') return String(value);
    return test === 'from' || test === 'before' ? `${test} ${String(value)}` : null;
  },
};

const DAY_WORDS = {
  from: 'from',
  since: 'from',
  'on or after': 'from',
  '>=': 'from',
  '≥': 'from',
  before: 'before',
  '<': 'before',
  until: 'until',
  'up to': 'until',
  '<=': 'until',
  '≤': 'until',
  after: 'after',
  '>': 'after',
};

function dateTyped(typed: string): string | null {
  const read = readDate(typed, 'day-first');
  return read.ok ? read.date : null;
}
