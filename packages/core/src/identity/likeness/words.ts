import { counted } from '../../text';
import type { How } from './agreement';
import type { Share } from './score';

const WORDS: Record<How, string> = {
  same: 'the same',
  nickname: 'names that one person goes by',
  initial: 'an initial, which fits',
  typing: 'nearly the same, as with a typing error',
  sound: 'said alike',
  part: 'one is part of the other',
  swapped: 'the same two names, given and family name exchanged',
  vowelless: 'the same, written without vowels',
  'other-domain': 'the same before the @, at another domain',
  'shared-mailbox': 'a mailbox that several people read',
  'goes-with-company': 'different, as the company is',
  'fits-name': 'the domain fits the name',
  alike: 'much alike',
  different: 'different',
  'not-told': 'not told by both',
};

/** What one share says, as a person reads it beside its bar: `the same, and rare`. */
export function shareInWords({ of, agreement, common, bits }: Share): string {
  if (of === 'begin') return 'how seldom any two records are the same';
  if (of === 'related') return 'how often others, such as a family or colleagues, would agree so too';
  if (!agreement) return '';
  const words = WORDS[agreement.how];
  if (agreement.level !== 'exact') return words;
  if (common !== null) return `${words}; ${counted(common, 'record')} of 100,000 ${common === 1 ? 'has' : 'have'} it`;
  return bits > 8 ? `${words}, and rare` : words;
}

/** A probability as people say it, never more certain than it is: `98.6 %`, `over 99.9 %`. */
export function percent(probability: number): string {
  if (probability > 0.999) return 'over 99.9 %';
  if (probability < 0.001) return 'under 0.1 %';
  return `${(probability * 100).toFixed(probability > 0.99 || probability < 0.1 ? 1 : 0)} %`;
}
