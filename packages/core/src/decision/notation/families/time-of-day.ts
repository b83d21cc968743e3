import { minutesOf } from '../../input-kinds/registry';
import type { FamilyNotation } from '../family-notation';
import { afterWords, bothEnds, wordsFor } from '../prefix';

const TIME_WORDS = { from: 'at-least', before: 'below', until: 'at-most' };

export const timeOfDay: FamilyNotation = {
  examples: ['09:00 to 17:00', 'from 17:00', 'before 09:00'],
  read(typed) {
    const ends = bothEnds(typed);
    if (ends) {
      const [first, last] = ends.map(timeTyped);
      if (first === undefined || last === undefined || first === null || last === null) return TIME_HINT;
      return first > last ? 'The time ends before it begins.' : { test: 'between', value: [first, last] };
    }
    const found = afterWords(typed, TIME_WORDS);
    const minutes = timeTyped(found?.rest ?? '');
    return found && minutes !== null ? { test: found.test, value: minutes } : TIME_HINT;
  },
  show({ test, value }) {
    const [first, last] = [value].flat().map((minutes) => timeText(Number(minutes)));
    if (test === 'between') return `${first} to ${last}`;
    const words = wordsFor(test, TIME_WORDS);
    return words && `${words} ${first}`;
  },
};

const TIME_HINT = 'Type times such as 09:00 to 17:00, from 17:00, or before 09:00.';

function timeTyped(typed: string): number | null {
  return /^([01]?\d|2[0-3]):[0-5]\d$/.test(typed) ? minutesOf(typed.padStart(5, '0')) : null;
}

/** Minutes since midnight as the clock shows them: `09:30`. */
export function timeText(minutes: number): string {
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}
