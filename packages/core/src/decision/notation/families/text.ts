import type { FamilyNotation } from '../family-notation';
import { meansAnything, quoted, readItems, showItems } from '../items';
import { afterWords, wordsFor } from '../prefix';
import { listOf, oneOrAll } from './lists';

const TEXT_WORDS = {
  not: 'is-not',
  'starts with': 'starts-with',
  'ends with': 'ends-with',
  contains: 'contains',
  'not containing': 'contains-not',
  except: 'is-not',
  '<>': 'is-not',
  '!=': 'is-not',
  '=': 'is',
};

export const text: FamilyNotation = {
  examples: ['Leeds', 'Leeds, York', 'not Leeds', 'starts with Le', 'contains glass', 'in North', 'blank'],
  read(typed) {
    const { test, rest } = afterWords(typed, TEXT_WORDS) ?? withStars(typed) ?? { test: 'is', rest: typed };
    const items = readItems(rest);
    return items.length ? { test, value: oneOrAll(items) } : 'Type what to compare with.';
  },
  show({ test, value }) {
    const items = listOf(value);
    if (test !== 'is') {
      const words = wordsFor(test, TEXT_WORDS);
      return words && `${words} ${showItems(items)}`;
    }
    // What would be read as a test of its own is put in quotation marks.
    const plain = showItems(items);
    return startsLikeATest(plain) ? items.map(quoted).join(', ') : plain;
  },
};

/** Texts with a star for what may stand there, as people write them: `Le*`, `*glass*`. */
function withStars(typed: string): { test: string; rest: string } | null {
  if (!typed.includes('*') || typed.includes('"')) return null;
  const items = readItems(typed);
  const all = (fits: (item: string) => boolean) =>
    items.length > 0 && items.every((item) => fits(item) && item.replace(/^\*|\*$/g, '').trim() !== '');
  const test = all((item) => item.startsWith('*') && item.endsWith('*'))
    ? 'contains'
    : all((item) => !item.startsWith('*') && item.endsWith('*'))
      ? 'starts-with'
      : all((item) => item.startsWith('*') && !item.endsWith('*'))
        ? 'ends-with'
        : null;
  return test && { test, rest: showItems(items.map((item) => item.replace(/^\*|\*$/g, '').trim())) };
}

/** Whether a text would be read as something else than itself. */
export function startsLikeATest(plain: string): boolean {
  return (
    /^(any|anything|blank|not|in|starts|ends|contains|except|from|until|before)( |$)/i.test(plain) ||
    /^(<>|!=|=)/.test(plain) ||
    plain.includes('*') ||
    meansAnything(plain)
  );
}
