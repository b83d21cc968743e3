import { doubleMetaphone } from 'double-metaphone';
import { remembered } from '../../remembered';
import type { Comparator } from './comparator';

/** How a word may be said: its two codes by Double Metaphone (Philips 2000), the likelier first. */
export const phoneticCodes = remembered((word): readonly [string, string] => {
  const [likely, other] = doubleMetaphone(word);
  // What has no sound, such as a number, is its own code.
  return [likely || word, other || likely || word];
});

/** Whether two words may be said alike. */
export function soundsAlike(one: string, other: string): boolean {
  const [a, b] = phoneticCodes(one);
  const [c, d] = phoneticCodes(other);
  return a === c || a === d || b === c || (b === d && b !== '');
}

export const phoneticComparator: Comparator = {
  name: 'phonetic',
  label: 'Said alike',
  description: 'Names that are heard and written down (Double Metaphone, Philips 2000): 1 said alike, else 0.',
  alike: (one, other) => (soundsAlike(one, other) ? 1 : 0),
  // Philips 2000: Smith and Schmidt share a code.
  examples: [
    ['smith', 'schmidt', 1],
    ['stephen', 'steven', 1],
    ['catherine', 'kathryn', 1],
    ['oduya', 'whitlock', 0],
  ],
};
