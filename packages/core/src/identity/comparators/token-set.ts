import type { Comparator } from './comparator';
import { jaroWinkler } from './jaro-winkler';

/** From what likeness on two words are one, wrongly written. */
const SAME_WORD = 0.92;

/**
 * How many words two names have in common, in any order, to all of their words (Jaccard 1912); a word with a typing error
 * counts as much as it is like the other (soft tokens: Cohen, Ravikumar and Fienberg 2003).
 */
export function tokenSetLikeness(one: readonly string[], other: readonly string[]): number {
  const [words, others] = [[...new Set(one)], [...new Set(other)]];
  if (!words.length || !others.length) return 0;
  const pairs = words.flatMap((a) =>
    others.flatMap((b) => {
      const alike = a === b ? 1 : a.length > 3 && b.length > 3 ? jaroWinkler(a, b) : 0;
      return alike < SAME_WORD ? [] : [{ a, b, alike, order: a < b ? `${a} ${b}` : `${b} ${a}` }];
    }),
  );
  pairs.sort((x, y) => y.alike - x.alike || (x.order < y.order ? -1 : x.order > y.order ? 1 : 0));
  const [taken, takenOthers] = [new Set<string>(), new Set<string>()];
  let shared = 0;
  for (const { a, b, alike } of pairs) {
    if (taken.has(a) || takenOthers.has(b)) continue;
    taken.add(a);
    takenOthers.add(b);
    shared += alike;
  }
  return shared / (words.length + others.length - taken.size);
}

export const tokenSetComparator: Comparator = {
  name: 'token-set',
  label: 'Words in common',
  description: 'Names of several words in any order (Jaccard 1912; soft tokens: Cohen, Ravikumar and Fienberg 2003).',
  alike: (one, other) => tokenSetLikeness(one.split(' ').filter(Boolean), other.split(' ').filter(Boolean)),
  examples: [
    ['royal botanic garden', 'garden botanic royal', 1],
    ['fennwick academy', 'fennwick', 0.5],
    ['alder nursery', 'birch school', 0],
  ],
};
