import { addressComparator } from './address';
import type { Comparator } from './comparator';
import { damerauLevenshteinComparator } from './damerau-levenshtein';
import { dateComparator, numberComparator } from './distances';
import { domainNameComparator } from './domain-name';
import { jaroWinklerComparator } from './jaro-winkler';
import { nicknameComparator } from './nickname';
import { phoneticComparator } from './phonetic';
import { tokenSetComparator } from './token-set';

/** Work grows with the product of both lengths, and names are shorter: what is longer is compared by its beginning. */
const LONGEST = 300;

/** Every way to say how alike two values are. */
export const COMPARATORS: readonly Comparator[] = [
  jaroWinklerComparator,
  damerauLevenshteinComparator,
  tokenSetComparator,
  phoneticComparator,
  numberComparator,
  dateComparator,
  nicknameComparator,
  domainNameComparator,
  addressComparator,
].map((comparator) => ({
  ...comparator,
  alike: (one, other) => comparator.alike(one.slice(0, LONGEST), other.slice(0, LONGEST)),
}));
