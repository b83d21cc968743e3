import { remembered } from '../remembered';

/** The largest share that one person can have. */
export const MOST_SHARE = 100;

/** How many shares of what comes each has; one where nothing is said. */
export type Shares = Readonly<Record<string, number>>;

/**
 * Whose turn it is when people have shares: in each round as often as their share, spread over it as evenly as it can be
 * (smooth weighted round robin). `null` where nobody has any share.
 *
 * @param turn How many had a turn before.
 */
export function turnByShares(people: readonly string[], shares: Shares, turn: number): string | null {
  const wanted = people.map((key) => [key, shares[key] ?? 1] as const).filter(([, share]) => share > 0);
  if (!wanted.length) return null;
  const round = roundOf(JSON.stringify(wanted));
  return round[turn % round.length]!;
}

/** The keys in the order of one round: whoever is furthest behind their share comes next, and of several the first. */
const roundOf = remembered((text: string): string[] => {
  const wanted = JSON.parse(text) as [string, number][];
  const total = wanted.reduce((sum, [, share]) => sum + share, 0);
  const due = wanted.map(() => 0);
  return Array.from({ length: total }, () => {
    let next = 0;
    wanted.forEach(([, share], index) => {
      due[index]! += share;
      if (due[index]! > due[next]!) next = index;
    });
    due[next]! -= total;
    return wanted[next]![0];
  });
}, 1_000);
