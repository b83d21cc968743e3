import type { Comparator } from './comparator';

/** How much a common beginning counts, and up to how many letters (Winkler 1990). */
const PREFIX_WEIGHT = 0.1;
const LONGEST_PREFIX = 4;

/** Jaro’s likeness: the share of letters that stand near one another in both, less half of those out of order (Jaro 1989). */
export function jaro(one: string, other: string): number {
  if (one === other) return one === '' ? 0 : 1;
  const reach = Math.max(0, Math.floor(Math.max(one.length, other.length) / 2) - 1);
  const taken = new Uint8Array(other.length);
  const found: number[] = [];
  for (let i = 0; i < one.length; i++) {
    const end = Math.min(other.length, i + reach + 1);
    for (let j = Math.max(0, i - reach); j < end; j++) {
      if (taken[j] || one.charCodeAt(i) !== other.charCodeAt(j)) continue;
      taken[j] = 1;
      found.push(one.charCodeAt(i));
      break;
    }
  }
  if (!found.length) return 0;
  let outOfOrder = 0;
  let k = 0;
  for (let j = 0; j < other.length; j++) if (taken[j] && other.charCodeAt(j) !== found[k++]) outOfOrder += 1;
  const m = found.length;
  return (m / one.length + m / other.length + (m - outOfOrder / 2) / m) / 3;
}

/** Jaro’s likeness with a common beginning counting more: people err less at the beginning of a name (Winkler 1990). */
export function jaroWinkler(one: string, other: string): number {
  const alike = jaro(one, other);
  let prefix = 0;
  while (prefix < LONGEST_PREFIX && prefix < one.length && one[prefix] === other[prefix]) prefix += 1;
  return alike + prefix * PREFIX_WEIGHT * (1 - alike);
}

export const jaroWinklerComparator: Comparator = {
  name: 'jaro-winkler',
  label: 'Letters in common',
  description: 'Names that differ by a few letters (Jaro 1989, Winkler 1990).',
  alike: jaroWinkler,
  // Winkler 1990, table 1.
  examples: [
    ['martha', 'marhta', 0.961],
    ['dwayne', 'duane', 0.84],
    ['dixon', 'dicksonx', 0.813],
    ['jones', 'johnson', 0.832],
    ['abroms', 'abrams', 0.922],
    ['massey', 'massie', 0.933],
    ['hardin', 'martinez', 0.722],
    ['itman', 'smith', 0.467],
  ],
};
