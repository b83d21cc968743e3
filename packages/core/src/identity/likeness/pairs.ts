import { patternOf, type Pattern } from './agreement';
import { agreements } from './compared-fields';
import type { ComparedRecord } from './compared';

/** Counts pairs by how they agree. */
export function countPatterns(
  pairs: Iterable<[number, number]>,
  records: readonly ComparedRecord[],
): Map<Pattern, number> {
  const counts = new Map<Pattern, number>();
  for (const [a, b] of pairs) {
    const pattern = patternOf(agreements(records[a]!, records[b]!).map(({ level }) => level));
    counts.set(pattern, (counts.get(pattern) ?? 0) + 1);
  }
  return counts;
}

/**
 * Pairs spread evenly over all records, as good as random for records in the order of their making: each with the one a
 * changing way further on.
 */
export function* spreadPairs(count: number, wanted: number): Generator<[number, number]> {
  if (count < 2) return;
  let at = 0;
  const most = Math.min(wanted, (count * (count - 1)) / 2);
  for (let i = 0; i < most; i++) {
    // Steps by the golden section never fall into a rhythm (Weyl 1916).
    at = (at + 0.618_033_988_75) % 1;
    const first = i % count;
    const other = Math.floor(at * count);
    if (first !== other) yield first < other ? [first, other] : [other, first];
  }
}
