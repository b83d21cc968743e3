import { trimWhere } from '../../text';
import { defineFinisher, NO_PARAMETERS } from './finisher';

/** Elements that begin a line of their own. */
const BLOCKS = new Set(['p', 'br', 'div', 'li', 'tr', 'ul', 'ol', 'table', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6']);
/** An element’s mark is shorter than this; what is longer is text with a `<` in it. */
const LONGEST_MARK = 1_000;
const NAMED: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'", nbsp: ' ' };
const REFERENCE = /&(?:#(\d{1,7})|#x([\da-f]{1,6})|(amp|lt|gt|quot|apos|nbsp));/gi;

export const withoutMarkup = defineFinisher({
  name: 'without-markup',
  label: 'without markup',
  description:
    'Takes the marks of HTML away (<p>Tindra</p> becomes Tindra): paragraphs become lines, and character references the characters that they stand for.',
  parameters: NO_PARAMETERS,
  example: { before: '<p>Weir &amp; Daughters</p>', after: 'Weir & Daughters' },
  finish: (text) => ({ text: plainOf(text) }),
});

/** Whether a text has the marks of HTML in it. */
export function hasMarkup(text: string): boolean {
  const end = markEnd(text, text.indexOf('<'));
  return end !== -1;
}

function plainOf(html: string): string {
  let plain = '';
  let at = 0;
  while (at < html.length) {
    const next = html.indexOf('<', at);
    if (next === -1) break;
    const end = markEnd(html, next);
    plain += html.slice(at, next);
    if (end === -1) plain += '<';
    else if (BLOCKS.has(nameOf(html.slice(next, end)))) plain += '\n';
    at = end === -1 ? next + 1 : end;
  }
  plain = decoded(plain + html.slice(at));
  const lines = plain.split('\n').map((line) => trimWhere(line, isBlank));
  return lines
    .filter((line, index) => line !== '' || (index > 0 && lines[index - 1] !== ''))
    .join('\n')
    .trim();
}

/** Where a mark that begins at a place ends; −1 where none begins there. */
function markEnd(text: string, at: number): number {
  if (at === -1 || !/[a-z/!]/i.test(text[at + 1] ?? '')) return -1;
  const end = text.slice(at, at + LONGEST_MARK).indexOf('>');
  return end === -1 ? -1 : at + end + 1;
}

function nameOf(mark: string): string {
  return /^<\/?([a-z][a-z\d]{0,20})/i.exec(mark)?.[1]?.toLowerCase() ?? '';
}

function decoded(text: string): string {
  return text.replace(
    REFERENCE,
    (whole, decimal: string | undefined, hexadecimal: string | undefined, name: string) => {
      if (name) return NAMED[name.toLowerCase()]!;
      const code = decimal === undefined ? Number.parseInt(hexadecimal!, 16) : Number(decimal);
      const isCharacter = code > 0 && code <= 0x10ffff && (code < 0xd800 || code > 0xdfff);
      return isCharacter ? String.fromCodePoint(code) : whole;
    },
  );
}

function isBlank(character: string): boolean {
  return character === ' ' || character === '\u00a0' || character === '\t';
}
