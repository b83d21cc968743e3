import type { RecordKind } from '../../diff/record';
import { error, type Problem } from '../../problem';
import { levelsOf, type Pattern } from './agreement';

/** From what probability on two records are taken for one, and from what on a person is asked. */
export interface Thresholds {
  accept: number;
  ask: number;
}

/** Chosen on generated people whose truth is known; see the bench `quality`. */
export const USUAL_THRESHOLDS: Thresholds = { accept: 0.85, ask: 0.2 };

export type LikenessVerdict = 'accept' | 'ask' | 'different';

/**
 * What is done with a pair: taken for one, asked about, or left alone. However likely it is, people are asked about whose
 * names may be those of two: see `mayBeTwoNames`.
 */
export function verdictOn(
  { probability, pattern }: { probability: number; pattern: Pattern },
  kind: RecordKind,
  { accept, ask }: Thresholds,
): LikenessVerdict {
  if (probability < ask) return 'different';
  return probability >= accept && !mayBeTwoNames(kind, pattern) ? 'accept' : 'ask';
}

/**
 * Another given name or another surname: a marriage and a sister look alike. Either a little different in one company, or
 * both, and no mailbox of their own that says they are one: Christian Schmidt and Christine Schmitt, whose number and address
 * are those of the office.
 */
function mayBeTwoNames(kind: RecordKind, pattern: Pattern): boolean {
  if (kind !== 'contact' && kind !== 'lead') return false;
  const [given, family, email, , company] = levelsOf(pattern.slice(0, 5));
  if (given === 'far' || family === 'far') return true;
  const ownMailbox = email === 'exact' || email === 'near';
  if (ownMailbox) return false;
  return company === 'exact' ? given === 'near' || family === 'near' : given === 'near' && family === 'near';
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
