import { wantedNumber } from '../../../condition/wanted';
import { isMoney } from '../../../diff/record';
import { formatMoney } from '../../../reading/money';
import type { FamilyNotation } from '../family-notation';
import { afterWords, beforeWords, bothEnds, closeEnds, wordsFor } from '../prefix';

/** By which a test begins: first as it is shown, then what else people write. */
const NUMBER_WORDS = {
  'at least': 'at-least',
  'at most': 'at-most',
  over: 'above',
  under: 'below',
  'more than': 'above',
  'greater than': 'above',
  above: 'above',
  'less than': 'below',
  'fewer than': 'below',
  below: 'below',
  'up to': 'at-most',
  from: 'at-least',
  min: 'at-least',
  max: 'at-most',
  '>=': 'at-least',
  '≥': 'at-least',
  '<=': 'at-most',
  '≤': 'at-most',
  '>': 'above',
  '<': 'below',
  '=': 'is-number',
};

/** By which a test ends. */
const NUMBER_ENDINGS = Object.fromEntries([
  ['+', 'at-least'],
  ...['more', 'over', 'above', 'up', 'higher', 'larger'].flatMap((word) => joined(word, 'at-least')),
  ...['less', 'fewer', 'under', 'below', 'lower', 'smaller'].flatMap((word) => joined(word, 'at-most')),
]);

function joined(word: string, test: string): [string, string][] {
  return [
    [`or ${word}`, test],
    [`and ${word}`, test],
  ];
}

export const number: FamilyNotation = {
  examples: ['4', 'at least 4', 'at most 9', 'over 4', 'under 9', '4 to 9', 'blank'],
  read(typed, { type }, { defaultCurrency }) {
    const one = (part: string) => {
      const read = wantedNumber(part, { type, defaultCurrency });
      if (typeof read === 'string') return read;
      return read.currency === undefined ? read.number : { amount: read.number, currency: read.currency };
    };
    const ends = bothEnds(typed) ?? closeEnds(typed);
    if (ends) {
      const [least, most] = ends.map(one);
      if (typeof least === 'string' || typeof most === 'string')
        return `${typeof least === 'string' ? least : String(most)} A range is typed as 4 to 9.`;
      if (amountOf(least) > amountOf(most)) return 'The range ends before it begins.';
      return { test: 'between', value: [least, most] };
    }
    const { test, rest } = afterWords(typed, NUMBER_WORDS) ??
      beforeWords(typed, NUMBER_ENDINGS) ?? { test: 'is-number', rest: typed };
    const value = one(rest);
    return typeof value === 'string' ? `${value} Or a test such as: at least 4; 4 to 9.` : { test, value };
  },
  show({ test, value }) {
    const [first, last] = [value].flat().map((one) => (isMoney(one) ? formatMoney(one) : String(one)));
    if (test === 'between') return `${first} to ${last}`;
    if (test === 'is-number') return first ?? null;
    const words = wordsFor(test, NUMBER_WORDS);
    return words && `${words} ${first}`;
  },
};

function amountOf(value: unknown): number {
  return isMoney(value) ? value.amount : Number(value);
}
