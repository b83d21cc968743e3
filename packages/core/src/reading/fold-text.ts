import { letters } from '#libraries';
import { remembered } from '../remembered';

/** Longer texts are no names; what is beyond takes no part in comparing. */
const LONGEST = 300;
/** Of such a text nothing is to be written in other letters. */
const ASCII = /^[\x20-\x7e]*$/;
/** Joins a name rather than divides it: `O’Brien`, `d'Arcy`. */
const JOINING = /['’‘ʼ`´]/g;

/**
 * The words of a text as they are compared, in lower-case ASCII: Unicode NFKC, letters of other scripts written in Latin
 * ones (any-ascii), without marks. The German ways of writing an umlaut (`Müller`, `Mueller`) are one.
 *
 * @example foldWords('Łukasz  O’Brien-MÜLLER') // ['lukasz', 'obrien', 'muller']
 */
export const foldWords = remembered((text): readonly string[] => {
  const joined = text.slice(0, LONGEST).normalize('NFKC').replace(JOINING, '');
  const latin = (ASCII.test(joined) ? joined : letters.now(joined)).toLowerCase().replace(JOINING, '');
  const words = latin.match(/[a-z0-9]+/g) ?? [];
  return words.map((word) => word.replace(/([aou])e(?=[b-df-hj-np-tv-z])/g, '$1'));
});

/** The consonants of a folded word, each once in a row: what a script without vowels leaves of a name. */
export function consonants(word: string): string {
  return word.replace(/[aeiouyw]/g, '').replace(/(.)\1+/g, '$1');
}

/** Whether a text is in a script that writes no short vowels. */
export function isVowelless(text: string): boolean {
  return /[\p{Script=Arabic}\p{Script=Hebrew}]/u.test(text);
}
