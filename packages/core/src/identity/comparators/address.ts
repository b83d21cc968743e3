import { foldWords } from '../../reading/fold-text';
import type { Comparator } from './comparator';
import { tokenSetLikeness } from './token-set';

/** Words of streets and houses in several languages, each with what it is written short as. */
const SHORT = Object.fromEntries(
  'street:st road:rd avenue:ave lane:ln drive:dr close:cl court:ct square:sq place:pl terrace:ter house:hse apartment:apt flat:apt unit:apt floor:fl saint:st north:n south:s east:e west:w strasse:str straat:str boulevard:blvd ulica:ul calle:c rue:r via:v plein:pl platz:pl'
    .split(' ')
    .map((pair) => pair.split(':') as [string, string]),
);
/** Said or left out. */
const UNSAID = new Set('the no number nr po box'.split(' '));

/**
 * A postal address as it is compared: its words folded, street words written short (as S42 of the Universal Postal Union
 * has them), a suffix of German and Dutch streets (`Lindenstraße`, `Lindenstr.`) written short too.
 */
export function addressWords(address: string): string[] {
  return foldWords(address)
    .filter((word) => !UNSAID.has(word))
    .map((word) => SHORT[word] ?? word.replace(/(?<=[a-z]{3})(strasse|straat)$/, 'str'));
}

/** Two addresses of one town whose numbers differ are two houses, however like they are otherwise. */
const OTHER_HOUSE = 0.3;

export function addressLikeness(one: string, other: string): number {
  const [a, b] = [addressWords(one), addressWords(other)];
  const alike = tokenSetLikeness(a, b);
  const numbers = (words: readonly string[]) => words.filter((word) => /^\d+[a-z]?$/.test(word));
  const [own, others] = [numbers(a), numbers(b)];
  const clash = own.length > 0 && others.length > 0 && !own.some((number) => others.includes(number));
  return clash ? Math.min(alike, OTHER_HOUSE) : alike;
}

export const addressComparator: Comparator = {
  name: 'address',
  label: 'One address',
  description:
    'Postal addresses, with street words short or long, in any order; another house number is another house.',
  alike: addressLikeness,
  examples: [
    ['12 Alder Street, Fennwick', '12 Alder St. Fennwick', 1],
    ['Lindenstraße 7, Moorkamp', 'Lindenstr. 7 Moorkamp', 1],
    ['12 Alder Street, Fennwick', '14 Alder Street, Fennwick', 0.3],
    ['12 Alder Street', '', 0],
  ],
};
