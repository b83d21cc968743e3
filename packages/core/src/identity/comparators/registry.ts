import { addressComparator } from './address';
import type { Comparator } from './comparator';
import { damerauLevenshteinComparator } from './damerau-levenshtein';
import { dateComparator, numberComparator } from './distances';
import { domainNameComparator } from './domain-name';
import { jaroWinklerComparator } from './jaro-winkler';
import { nicknameComparator } from './nickname';
import { phoneticComparator } from './phonetic';
import { tokenSetComparator } from './token-set';

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
];
