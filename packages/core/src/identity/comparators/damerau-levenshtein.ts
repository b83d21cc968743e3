import type { Comparator } from './comparator';

/**
 * How many letters must be put in, left out, changed or swapped with the next to make one text of the other: the
 * distance of optimal string alignment (Damerau 1964), where no part is changed twice.
 *
 * @param most Where more are needed, `most + 1` is answered, sooner.
 */
export function editDistance(one: string, other: string, most = Infinity): number {
  if (one === other) return 0;
  if (Math.abs(one.length - other.length) > most) return most + 1;
  let before: number[] = [];
  let last = Array.from({ length: other.length + 1 }, (_, j) => j);
  for (let i = 1; i <= one.length; i++) {
    const row = [i];
    let least = i;
    for (let j = 1; j <= other.length; j++) {
      const same = one.charCodeAt(i - 1) === other.charCodeAt(j - 1);
      let cost = Math.min(last[j]! + 1, row[j - 1]! + 1, last[j - 1]! + (same ? 0 : 1));
      const swapped =
        i > 1 &&
        j > 1 &&
        one.charCodeAt(i - 1) === other.charCodeAt(j - 2) &&
        one.charCodeAt(i - 2) === other.charCodeAt(j - 1);
      if (swapped) cost = Math.min(cost, before[j - 2]! + 1);
      row.push(cost);
      if (cost < least) least = cost;
    }
    if (least > most) return most + 1;
    before = last;
    last = row;
  }
  return last[other.length]!;
}

export const damerauLevenshteinComparator: Comparator = {
  name: 'damerau-levenshtein',
  label: 'Typing errors',
  description:
    'One minus the number of typing errors to the length of the longer text (Damerau 1964, Levenshtein 1966).',
  alike: (one, other) => {
    const longer = Math.max(one.length, other.length);
    return longer ? 1 - editDistance(one, other) / longer : 0;
  },
  // Levenshtein’s own example, and the four single errors that Damerau counts.
  examples: [
    ['kitten', 'sitting', 0.571],
    ['saturday', 'sunday', 0.625],
    ['whitlock', 'whitlcok', 0.875],
    ['whitlock', 'whitlok', 0.875],
    ['ca', 'abc', 0],
  ],
};
