import { editDistance } from '../comparators/damerau-levenshtein';
import { jaroWinkler } from '../comparators/jaro-winkler';
import { soundsAlike } from '../comparators/phonetic';
import { isKnownGivenName, isNicknameOf } from '../nicknames';
import { nameSkeleton, type NameForm } from '../person-name-form';
import { DIFFERENT, NOT_TOLD, type Agreement } from './agreement';

/** From what likeness on two names are one with a typing error. */
const TYPED_WRONG = 0.94;
/** From how many letters on two typing errors are likely. */
const LONG = 10;
/** The shortest consonants by which a name without vowels is known again. */
const LEAST_CONSONANTS = 3;

/** How far two names agree, in the given and in the family name. Names in the wrong fields are held against each other too. */
export function compareNames(one: NameForm | null, other: NameForm | null): { given: Agreement; family: Agreement } {
  if (!one || !other) return { given: NOT_TOLD, family: NOT_TOLD };
  const vowelless = one.vowelless !== other.vowelless;
  const given = compareGiven(one.given, other.given, vowelless);
  const family = compareFamily(one.family, other.family, vowelless);
  if (given.level !== 'far' || family.level !== 'far') return { given, family };
  const crossed = [
    compareFamily(one.given, other.family, vowelless),
    compareFamily(one.family, other.given, vowelless),
  ];
  if (crossed.some(({ level }) => level === 'far' || level === 'missing')) return { given, family };
  const swapped: Agreement = { level: 'near', how: 'swapped' };
  return { given: swapped, family: swapped };
}

function compareGiven(one: readonly string[], other: readonly string[], vowelless: boolean): Agreement {
  const [a, b] = [one[0], other[0]];
  if (a === undefined || b === undefined) return NOT_TOLD;
  if (one.join(' ') === other.join(' ') || sameSet(one, other)) return { level: 'exact', how: 'same', value: a };
  if (a.length === 1 || b.length === 1) return a[0] === b[0] ? { level: 'near', how: 'initial' } : DIFFERENT;
  if (one.every((word) => other.includes(word)) || other.every((word) => one.includes(word)))
    return { level: 'near', how: 'part' };
  if (a === b) return { level: 'near', how: 'part' };
  if (isNicknameOf(a, b)) return { level: 'near', how: 'nickname' };
  // `Paul` and `Paula`, `Erik` and `Erika` are a letter apart, and two people.
  if ((isKnownGivenName(a) && isKnownGivenName(b)) || isHisAndHers(a, b)) return DIFFERENT;
  return compareWords(one, other, vowelless);
}

/** The man’s and the woman’s form of one name: `hendrik` and `hendrika`, `cornelis` and `cornelia`. */
function isHisAndHers(one: string, other: string): boolean {
  if (one.endsWith('a') === other.endsWith('a')) return false;
  const stem = (name: string) => name.replace(/[aeosu]$/, '');
  return stem(one) === stem(other);
}

function compareFamily(one: readonly string[], other: readonly string[], vowelless: boolean): Agreement {
  const [a, b] = [one.join(' '), other.join(' ')];
  if (!a || !b) return NOT_TOLD;
  if (one.join('') === other.join('') || sameSet(one, other))
    return { level: 'exact', how: 'same', value: one.join('') };
  if (a.length === 1 || b.length === 1) return a[0] === b[0] ? { level: 'near', how: 'initial' } : DIFFERENT;
  if (one.some((word) => word.length > 2 && other.includes(word))) return { level: 'near', how: 'part' };
  return compareWords(one, other, vowelless);
}

function compareWords(one: readonly string[], other: readonly string[], vowelless: boolean): Agreement {
  const [a, b] = [one.join(''), other.join('')];
  const errors = Math.min(a.length, b.length) < 4 ? 0 : Math.max(a.length, b.length) < LONG ? 1 : 2;
  if (errors && (editDistance(a, b, errors) <= errors || jaroWinkler(a, b) >= TYPED_WRONG))
    return { level: 'near', how: 'typing' };
  if (Math.min(a.length, b.length) > 3 && soundsAlike(a, b) && jaroWinkler(a, b) > 0.75)
    return { level: 'near', how: 'sound' };
  if (vowelless && nameSkeleton(one).length >= LEAST_CONSONANTS && nameSkeleton(one) === nameSkeleton(other))
    return { level: 'near', how: 'vowelless' };
  return DIFFERENT;
}

function sameSet(one: readonly string[], other: readonly string[]): boolean {
  return one.length === other.length && one.every((word) => other.includes(word));
}
