import type { FormFigures } from './form-figures';

/** Of this many views on each side at the least something can be said; before, chance alone decides. */
export const FEWEST_VIEWS = 50;

/** How much more of those who look at one version of a form send it than of those who look at the other. */
export interface VersionComparison {
  /** Completion of the one less that of the other, -1 to 1. */
  difference: number;
  /** Where the true difference lies, with 95 % certainty. */
  low: number;
  high: number;
  /** Which one is better; `null` while they cannot be told apart. */
  better: 'one' | 'other' | null;
}

type Seen = Pick<FormFigures, 'views' | 'sends'>;

const CERTAINTY_LEFT = 0.05;
/** The number of views at which the interval is at its narrowest for what it promises. */
const TUNED_FOR = 1_000;

/**
 * Compares the completion of two versions that share the visitors by chance; `null` while either was seen too seldom.
 *
 * People look at such figures every day and stop when they like what they see. An interval made for one look is wrong far
 * more often than it says when it is looked at many times, so this is a confidence sequence: with 95 % certainty it holds
 * the true difference at every moment at once. It is the asymptotic one with a normal mixture (Waudby-Smith, Arbour, Sinha,
 * Kennedy and Ramdas, "Time-uniform central limit theory and asymptotic confidence sequences", Annals of Statistics 52,
 * 2024, theorem 2.2 and its tuning in appendix B.2). Shares are drawn a little to one half for the variance (Agresti and
 * Coull), so that a version that nobody sent does not look certain.
 */
export function compareVersions(one: Seen, other: Seen): VersionComparison | null {
  if (one.views < FEWEST_VIEWS || other.views < FEWEST_VIEWS) return null;
  const all = one.views + other.views;
  const difference = share(one) - share(other);
  const spread = Math.sqrt(variance(one) * (all / one.views) + variance(other) * (all / other.views));
  const width = spread * boundary(all);
  const [low, high] = [Math.max(-1, difference - width), Math.min(1, difference + width)];
  return { difference, low, high, better: low > 0 ? 'one' : high < 0 ? 'other' : null };
}

/** A send that is told twice, or without a view, does not make a share above one. */
function share({ views, sends }: Seen): number {
  return Math.min(sends, views) / views;
}

function variance({ views, sends }: Seen): number {
  const drawn = (Math.min(sends, views) + 2) / (views + 4);
  return drawn * (1 - drawn);
}

/** Half the width of the sequence after `n` observations with a spread of one. */
function boundary(n: number): number {
  const evidence = -2 * Math.log(CERTAINTY_LEFT);
  const mixture = (evidence + Math.log(evidence + 1)) / TUNED_FOR;
  const grown = n * mixture + 1;
  return Math.sqrt(((2 * grown) / (n * n * mixture)) * Math.log(Math.sqrt(grown) / CERTAINTY_LEFT));
}
