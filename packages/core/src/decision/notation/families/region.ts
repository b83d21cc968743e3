import { regionSpan } from '../../region';
import type { FamilyNotation } from '../family-notation';
import { readItems, showItems } from '../items';
import { afterWords } from '../prefix';
import { listOf, oneOrAll } from './lists';

export const region: FamilyNotation = {
  examples: ['NL', 'NL, BE', 'NL 1000-1999', 'GB EH', 'not NL', 'in North', 'blank'],
  read(typed) {
    const { test, rest: items } = afterWords(typed, { not: 'is-not' }) ?? { test: 'is', rest: typed };
    const regions = readItems(items);
    const wrong = regions.map(regionSpan).find((span) => typeof span === 'string');
    if (typeof wrong === 'string') return wrong;
    return regions.length ? { test, value: oneOrAll(regions) } : 'Type a country such as NL.';
  },
  show({ test, value }) {
    if (test !== 'is' && test !== 'is-not') return null;
    return `${test === 'is-not' ? 'not ' : ''}${showItems(listOf(value))}`;
  },
};
