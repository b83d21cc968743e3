import type { RecordKind } from '../../diff/record';
import { error, type Problem } from '../../problem';
import { levelsOf, type Pattern } from './agreement';

/** From what probability on two records are taken for one, and from what on a person is asked. */
export interface Thresholds {
  accept: number;
  ask: number;
}

/** Chosen on generated people whose truth is known; see the bench `quality`. */
export const USUAL_THRESHOLDS: Thresholds = { accept: 0.85, ask: 0.17 };

export type LikenessVerdict = 'accept' | 'ask' | 'different';

/**
 * What is done with a pair: taken for one, asked about, or left alone. People of another given name or another surname are
 * asked about however likely it is, since a marriage and a sister look alike; and so are people of one company whose surnames
 * are written a little differently and who have different mailboxes there, since a mailbox is named after its owner.
 */
export function verdictOn(
  { probability, pattern }: { probability: number; pattern: Pattern },
  kind: RecordKind,
  { accept, ask }: Thresholds,
): LikenessVerdict {
  if (probability < ask) return 'different';
  return probability >= accept && !hasOtherName(kind, pattern) ? 'accept' : 'ask';
}

function hasOtherName(kind: RecordKind, pattern: Pattern): boolean {
  if (kind !== 'contact' && kind !== 'lead') return false;
  const [given, family, email, , company] = levelsOf(pattern.slice(0, 5));
  return given === 'far' || family === 'far' || (family === 'near' && email === 'far' && company === 'exact');
}

/** What is wrong with thresholds: they are probabilities, and nobody can be asked about what is accepted. */
export function checkThresholds({ accept, ask }: Thresholds, at: string): Problem[] {
  const outside = [accept, ask].some((value) => !(value > 0 && value <= 1));
  if (outside) return [error('threshold-outside', 'Both thresholds are probabilities over 0 and at most 1.', at)];
  if (ask > accept)
    return [
      error(
        'thresholds-cross',
        `A person cannot be asked from ${ask} on about what is accepted from ${accept} on. Make “ask” the smaller.`,
        at,
      ),
    ];
  return [];
}
