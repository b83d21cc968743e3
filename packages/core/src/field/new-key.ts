import { trimWhere } from '../text';

const LONGEST = 60;

/**
 * The key of something new, from its first name: lower case, with words joined by the separator. It never changes
 * afterwards, whatever the thing is called later.
 *
 * @param taken Keys in use, and those that were: a key that has gone is not given again, or what still names it would
 *   mean something else.
 * @example newKey('Site survey', ['site-survey']) // 'site-survey-2'
 */
export function newKey(name: string, taken: Iterable<string>, separator: '-' | '_' = '-'): string {
  const words = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, separator)
    .slice(0, LONGEST);
  const base = trimWhere(words, (character) => character === '-' || character === '_') || 'unnamed';
  const known = new Set(taken);
  if (!known.has(base)) return base;
  for (let number = 2; ; number += 1) {
    const key = `${base}${separator}${number}`;
    if (!known.has(key)) return key;
  }
}
