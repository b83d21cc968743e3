import type { FamilyNotation } from '../family-notation';
import { showItems } from '../items';
import { afterWords, wordsFor } from '../prefix';
import { listOf } from './lists';
import { labelOf, optionTest } from './option-test';

const SEVERAL_WORDS = { 'all of': 'holds-all-of', 'none of': 'is-none-of', 'any of': 'is-any-of', not: 'is-none-of' };

export const several: FamilyNotation = {
  examples: ['any of A, B', 'all of A, B', 'none of A, B', 'blank'],
  read(typed, column) {
    const { test, rest: items } = afterWords(typed, SEVERAL_WORDS) ?? { test: 'is-any-of', rest: typed };
    return optionTest(test, items, column);
  },
  show({ test, value }, { options: choices }) {
    const words = wordsFor(test, SEVERAL_WORDS);
    return words && `${words} ${showItems(listOf(value).map((key) => labelOf(key, choices)))}`;
  },
};
