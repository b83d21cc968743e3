import { countryNamed } from '../reading/country-name';

/** From the first text on, up to but without the second, compared by code units. */
export interface Span {
  from: string;
  before: string;
}

/** The same spans in their order, those that touch as one; so that they can be searched by halves. */
export function orderedSpans(spans: readonly Span[]): Span[] {
  const sorted = [...spans].sort((one, other) => (one.from < other.from ? -1 : one.from > other.from ? 1 : 0));
  const joined: Span[] = [];
  for (const { from, before } of sorted) {
    const last = joined[joined.length - 1];
    if (last && from <= last.before) {
      if (before > last.before) joined[joined.length - 1] = { from: last.from, before };
    } else joined.push({ from, before });
  }
  return joined;
}

/** Whether a text is in one of some spans that are in order. */
export function isInSpans(text: string, spans: readonly Span[]): boolean {
  let [low, high] = [0, spans.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (spans[middle]!.before <= text) low = middle + 1;
    else high = middle;
  }
  return low < spans.length && spans[low]!.from <= text;
}

/** Sorts after every postal code. */
const LAST = '\uFFFF';

/** Where somebody is as one text, `NL 1012AB`, so that regions are spans of it; `null` where the country is not known. */
export function regionText(country: string, postcode: string): string | null {
  const code = countryNamed(country);
  return code === null ? null : `${code} ${plainPostcode(postcode)}`;
}

/** What `NL`, `NL 1000-1999` or `GB EH` covers; a sentence where it is no region. */
export function regionSpan(text: string): Span | string {
  const [country, codes] = apart(text.trim());
  const code = countryNamed(country);
  if (code === null) return `“${country}” is no country. Type one such as NL, or with postal codes: NL 1000-1999.`;
  if (codes === '') return { from: `${code} `, before: `${code}!` };
  const [first, last, ...more] = codes.split(/[-–]/).map(plainPostcode);
  if (more.length || first === '' || last === '')
    return `“${codes}” are no postal codes. Type them as 1000-1999, or 10.`;
  const span = { from: `${code} ${first}`, before: `${code} ${last ?? first}${LAST}` };
  return span.from < span.before ? span : `The postal codes of “${text.trim()}” end before they begin.`;
}

/** The country may have several words; postal codes begin with the first word that holds a digit, or after a code of two letters. */
function apart(text: string): [string, string] {
  const words = text.split(/\s+/);
  const at = /^[A-Za-z]{2}$/.test(words[0]!) ? 1 : words.findIndex((word, index) => index > 0 && /\d/.test(word));
  return at === -1 ? [text, ''] : [words.slice(0, at).join(' '), words.slice(at).join('')];
}

function plainPostcode(text: string): string {
  return text.slice(0, 40).replace(/\s+/g, '').toUpperCase();
}
