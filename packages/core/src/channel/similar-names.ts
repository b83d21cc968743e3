import { editDistance } from '../identity/comparators/damerau-levenshtein';
import type { JoinedNames } from '../source/channel-rules';
import { plainName } from './names';

/** A source name with its number of touches. */
export interface NamedSource {
  name: string;
  touches: number;
}

/** The most sources compared; those with the most touches. */
export const MOST_COMPARED = 500;
/** Longer names are skipped. */
const LONGEST = 60;

/**
 * Groups source names that look like spellings of one name: they differ by capitals, accents, spaces or typing errors, or
 * one begins with the initials of the other. Each group is named by its most frequent spelling.
 */
export function similarNames(sources: readonly NamedSource[]): JoinedNames[] {
  const ordered = [...sources]
    .filter(({ name }) => name.length <= LONGEST)
    .sort((a, b) => b.touches - a.touches || b.name.length - a.name.length || (a.name < b.name ? -1 : 1))
    .slice(0, MOST_COMPARED)
    .map(({ name }) => spelled(name))
    .filter(({ plain }) => plain !== '');
  const groups: Spelled[][] = [];
  const known = new Nearby();
  for (const one of ordered) {
    const group = known.groupOf(one) ?? [];
    if (!group.length) groups.push(group);
    group.push(one);
    known.add(one, group);
  }
  return groups.flatMap(([first, ...others]) =>
    others.length ? [{ name: first!.name, spellings: others.map(({ name }) => name) }] : [],
  );
}

interface Spelled {
  name: string;
  plain: string;
  firstWord: string;
  /** The first letters of its words; blank for a single word. */
  initials: string;
}

function spelled(name: string): Spelled {
  const words = name
    .normalize('NFKD')
    .toLowerCase()
    .split(/[^\p{L}\p{Nd}\p{M}]+/u)
    .filter((word) => word !== '');
  return {
    name,
    plain: plainName(name),
    firstWord: words[0] ?? '',
    initials: words.length > 1 ? words.map((word) => word[0]!).join('') : '',
  };
}

/** Shorter names are not compared for typing errors. */
const SHORTEST_SLIP = 6;
const SHORTEST_TWO_SLIPS = 12;
const SHORTEST_INITIALS = 2;
/** Names are compared when their first or last three characters are the same. */
const END = 3;
/** The most names compared that share a beginning or an end. */
const MOST_ALIKE = 12;

/** Finds the group of a similar name without comparing with all names. */
class Nearby {
  readonly #same = new Map<string, Spelled[]>();
  readonly #ends = new Map<string, { one: Spelled; group: Spelled[] }[]>();

  add(one: Spelled, group: Spelled[]): void {
    for (const key of [`=${one.plain}`, `first ${one.firstWord}`, `initials ${one.initials}`])
      if (!this.#same.has(key)) this.#same.set(key, group);
    for (const key of endsOf(one)) {
      const alike = this.#ends.get(key) ?? [];
      if (alike.length < MOST_ALIKE) this.#ends.set(key, [...alike, { one, group }]);
    }
  }

  groupOf(one: Spelled): Spelled[] | undefined {
    return this.#same.get(`=${one.plain}`) ?? this.#byInitials(one) ?? this.#bySlip(one);
  }

  /** `GW-ads` begins with the initials of `Growers Weekly`. */
  #byInitials({ firstWord, initials }: Spelled): Spelled[] | undefined {
    return (
      (initials.length >= SHORTEST_INITIALS ? this.#same.get(`first ${initials}`) : undefined) ??
      (firstWord.length >= SHORTEST_INITIALS ? this.#same.get(`initials ${firstWord}`) : undefined)
    );
  }

  #bySlip(one: Spelled): Spelled[] | undefined {
    for (const key of endsOf(one))
      for (const { one: other, group } of this.#ends.get(key) ?? []) if (isSlip(one.plain, other.plain)) return group;
    return undefined;
  }
}

function endsOf({ plain }: Spelled): string[] {
  return plain.length < SHORTEST_SLIP ? [] : [`<${plain.slice(0, END)}`, `>${plain.slice(-END)}`];
}

function isSlip(one: string, other: string): boolean {
  const shorter = Math.min(one.length, other.length);
  if (shorter < SHORTEST_SLIP || digitsOf(one) !== digitsOf(other)) return false;
  const most = shorter >= SHORTEST_TWO_SLIPS ? 2 : 1;
  return Math.abs(one.length - other.length) <= most && editDistance(one, other, most) <= most;
}

/** Names with different digits, such as a year, are different. */
function digitsOf(text: string): string {
  return text.replace(/\P{Nd}/gu, '');
}
