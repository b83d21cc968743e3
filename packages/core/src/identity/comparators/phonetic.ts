import { doubleMetaphone } from 'double-metaphone';
import type { Comparator } from './comparator';

const MOST_KEPT = 50_000;
const kept = new Map<string, readonly [string, string]>();

/** How a word may be said: its two codes by Double Metaphone (Philips 2000), the likelier first. */
export function phoneticCodes(word: string): readonly [string, string] {
  let codes = kept.get(word);
  if (codes) return codes;
  if (kept.size >= MOST_KEPT) kept.clear();
  const [likely, other] = doubleMetaphone(word);
  // What has no sound, such as a number, is its own code.
  codes = [likely || word, other || likely || word];
  kept.set(word, codes);
  return codes;
}

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
