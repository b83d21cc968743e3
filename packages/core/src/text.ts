/**
 * Text as every part of the system can keep it: well-formed UTF-16 (lone surrogates become U+FFFD) and without NUL,
 * which PostgreSQL cannot store. What was sent stays unchanged in the submission; this is how it is read.
 */
export function storableText(text: string): string {
  const wellFormed = isWellFormed(text) ? text : replaceLoneSurrogates(text);
  return wellFormed.includes('\0') ? wellFormed.replaceAll('\0', '') : wellFormed;
}

/** Returns the text without the characters at its ends that `cut` holds true for. Walks each end once. */
export function trimWhere(text: string, cut: (character: string) => boolean, ends: 'both' | 'end' = 'both'): string {
  let begin = 0;
  let end = text.length;
  while (end > 0 && cut(text[end - 1]!)) end -= 1;
  if (ends === 'both') while (begin < end && cut(text[begin]!)) begin += 1;
  return text.slice(begin, end);
}

/** Shortens text for showing, on a whole character, with an ellipsis; never for storing. */
export function shorten(text: string, most: number): string {
  const characters = [...text];
  return characters.length <= most ? text : `${characters.slice(0, most - 1).join('')}…`;
}

/** `a, b and c`, as a sentence lists things. */
export function listInWords(items: readonly string[], conjunction = 'and'): string {
  if (items.length <= 1) return items.join('');
  return `${items.slice(0, -1).join(', ')} ${conjunction} ${items[items.length - 1]}`;
}

/** Whether two names are so alike that people take one for the other: capitals, spaces, marks and a trailing number aside. */
export function nearlySame(one: string, other: string): boolean {
  const plain = (name: string) =>
    name
      .normalize('NFKD')
      .toLowerCase()
      .replace(/[^\p{L}\p{Nd}]+/gu, '')
      .replace(/(copy|new|v?(?<!\d)\d+)$/, '')
      .replace(/s$/, '');
  const [a, b] = [plain(one), plain(other)];
  return a !== '' && a === b;
}

/** `1 field`, `3,000 fields`. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${count.toLocaleString('en-GB')} ${count === 1 ? one : many}`;
}

const LONE_SURROGATE = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;

function isWellFormed(text: string): boolean {
  return !/[\uD800-\uDFFF]/.test(text) || text.search(LONE_SURROGATE) === -1;
}

function replaceLoneSurrogates(text: string): string {
  return text.replace(LONE_SURROGATE, '\uFFFD');
}

/** With its first letter as a sentence begins. */
export function capitalised(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** `a deal`, `an opportunity`. */
export function withArticle(word: string): string {
  return `${/^[aeiou]/i.test(word) ? 'an' : 'a'} ${word}`;
}
