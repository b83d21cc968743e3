import { patternOf, type Agreement, type Pattern } from './agreement';
import { blocksOf } from './blocks';
import type { ComparedRecord } from './compared';
import { agreements } from './compared-fields';
import type { LikenessModel } from './model';
import { howLikely } from './score';

/** Two records that may be the same, by their ids; the smaller one stands first. */
export interface FoundPair {
  one: string;
  other: string;
  /** That both are the same, 0 to 1. */
  probability: number;
  /** How far they agree in each field. */
  pattern: Pattern;
}

export function foundPair(a: string, b: string, probability: number, agreed: readonly Agreement[]): FoundPair {
  const [one, other] = a < b ? [a, b] : [b, a];
  return { one, other, probability, pattern: patternOf(agreed.map(({ level }) => level)) };
}

/**
 * The pairs of some records with those near them that share a block, from a probability on; each pair once, also where both
 * are among the some. The time follows the pairs that share a block, not all pairs.
 */
export function pairsAround(
  some: ReadonlyMap<string, ComparedRecord>,
  near: ReadonlyMap<string, ComparedRecord>,
  model: LikenessModel,
  ask: number,
): FoundPair[] {
  const under = new Map<string, string[]>();
  for (const [id, record] of near)
    for (const block of blocksOf(record)) {
      const ids = under.get(block);
      if (ids) ids.push(id);
      else under.set(block, [id]);
    }
  return [...some].flatMap(([id, record]) => {
    const others = new Set(blocksOf(record).flatMap((block) => under.get(block) ?? []));
    return [...others].flatMap((other) => {
      if (other === id || (some.has(other) && other < id)) return [];
      const agreed = agreements(record, near.get(other)!);
      const probability = howLikely(model, agreed);
      return probability < ask ? [] : [foundPair(id, other, probability, agreed)];
    });
  });
}
