import iconv from 'iconv-lite';
import type { JsonObject } from '../json';
import type { SheetRow } from './sheet';

/** What properties of a card are called here (RFC 6350); others, such as photos and sounds, are left out. */
const NAMES: Readonly<Record<string, string>> = {
  FN: 'full_name',
  EMAIL: 'email',
  TEL: 'phone',
  ORG: 'company',
  TITLE: 'job_title',
  ROLE: 'job_title',
  URL: 'website',
  NOTE: 'note',
  UID: 'uid',
  BDAY: 'birthday',
};
/** Longer values are pictures or sounds. */
const LONGEST = 10_000;
const MOST_LINES = 50_000;

interface Property {
  name: string;
  parameters: string;
  value: string;
}

/**
 * Reads vCards (4.0, RFC 6350; 3.0, RFC 2426; 2.1): one person each. What stands several times in a card is numbered:
 * `email`, `email 2`. The row is the line in which the card begins.
 */
export function* readVCards(text: string): Generator<SheetRow> {
  const lines = text.split(/\r\n?|\n/);
  let begun: number | null = null;
  let card: string[] = [];
  for (const [index, line] of lines.entries()) {
    if (/^BEGIN:VCARD\s*$/i.test(line)) {
      if (begun !== null) yield unfinished(begun, card);
      begun = index + 1;
      card = [];
    } else if (/^END:VCARD\s*$/i.test(line)) {
      if (begun !== null) yield card.length > MOST_LINES ? tooLong(begun, card) : cardRow(begun, card);
      begun = null;
    } else if (begun !== null) {
      if (card.length <= MOST_LINES) card.push(line);
    } else if (line.trim() !== '')
      yield { row: index + 1, text: line.slice(0, 1_000), refused: 'It is outside of a card.' };
  }
  if (begun !== null) yield unfinished(begun, card);
}

function unfinished(row: number, card: readonly string[]): SheetRow {
  return { row, text: card.slice(0, 3).join(' '), refused: 'The card is never ended.' };
}

function tooLong(row: number, card: readonly string[]): SheetRow {
  const refused = `The card has more than ${MOST_LINES.toLocaleString('en-GB')} lines.`;
  return { row, text: card.slice(0, 3).join(' ').slice(0, 1_000), refused };
}

function cardRow(row: number, card: readonly string[]): SheetRow {
  const values: JsonObject = {};
  const times = new Map<string, number>();
  const put = (name: string, value: string) => {
    const text = value.trim();
    if (!text) return;
    const time = (times.get(name) ?? 0) + 1;
    times.set(name, time);
    values[time === 1 ? name : `${name} ${time}`] = text;
  };
  for (const property of propertiesOf(card)) {
    const { name } = property;
    if (property.value.length > LONGEST) continue;
    const value = decoded(property);
    if (name === 'N') {
      const [family = '', given = '', more = ''] = partsOf(value);
      put('first_name', [given, more].filter(Boolean).join(' '));
      put('last_name', family);
    } else if (name === 'ADR') {
      const [box, extra, street, town, region, code, country] = partsOf(value);
      put('address', [box, extra, street].filter(Boolean).join(', '));
      put('town', town ?? '');
      put('region', region ?? '');
      put('postal_code', code ?? '');
      put('country', country ?? '');
    } else if (name === 'ORG') put('company', partsOf(value)[0] ?? '');
    else if (NAMES[name]) put(NAMES[name], unescaped(value.replace(/^(tel|mailto):/i, '')));
  }
  return Object.keys(values).length
    ? { row, values }
    : { row, text: card.join(' ').slice(0, 1_000), refused: 'The card says nothing of a person.' };
}

/** The properties of a card, with folded lines put together (RFC 6350, 3.2; quoted-printable ones end in `=`). */
function propertiesOf(card: readonly string[]): Property[] {
  const whole: string[][] = [];
  let goesOn = false;
  for (const line of card) {
    const pieces = whole.at(-1);
    const folded = pieces && /^[ \t]/.test(line);
    if (folded) pieces.push(line.slice(1));
    else if (pieces && goesOn) pieces.push(line);
    else whole.push([line]);
    const quoted = /QUOTED-PRINTABLE/i.test(whole.at(-1)![0]!);
    goesOn = quoted && line.endsWith('=');
    if (goesOn) whole.at(-1)!.push(whole.at(-1)!.pop()!.slice(0, -1));
  }
  return whole.flatMap((pieces) => {
    const line = pieces.join('');
    const colon = endOfParameters(line);
    const name = /^(?:[\w-]+\.)?([\w-]+)(?=[;:])/.exec(line);
    if (!name || colon === -1) return [];
    return [
      { name: name[1]!.toUpperCase(), parameters: line.slice(name[0].length, colon), value: line.slice(colon + 1) },
    ];
  });
}

/** Returns the place of the colon before the value: the first that is not in quotes (RFC 6350, 3.3); -1 for none. */
function endOfParameters(line: string): number {
  let quoted = false;
  for (let at = 0; at < line.length; at += 1) {
    if (line[at] === '"') quoted = !quoted;
    else if (line[at] === ':' && !quoted) return at;
  }
  return -1;
}

/** The value of a property: its bytes where they are written as quoted-printable (RFC 2045), in their own encoding. */
function decoded({ parameters, value }: Property): string {
  if (!/QUOTED-PRINTABLE/i.test(parameters)) return value;
  const bytes: number[] = [];
  const encoder = new TextEncoder();
  for (let at = 0; at < value.length; at++) {
    const hex = value[at] === '=' ? /^[0-9a-f]{2}/i.exec(value.slice(at + 1, at + 3)) : null;
    if (hex) {
      bytes.push(parseInt(hex[0], 16));
      at += 2;
    } else bytes.push(...encoder.encode(value[at]));
  }
  const charset = /CHARSET="?([\w.:-]{1,40})/i.exec(parameters)?.[1] ?? 'utf-8';
  const known = iconv.encodingExists(charset) ? charset : 'utf-8';
  return iconv.decode(Uint8Array.from(bytes), known);
}

/** The parts of a structured value, apart at semicolons that are not escaped (RFC 6350, 3.4). */
function partsOf(value: string): string[] {
  const parts: string[] = [''];
  for (let at = 0; at < value.length; at++) {
    if (value[at] === ';') parts.push('');
    else {
      const length = value[at] === '\\' ? 2 : 1;
      parts[parts.length - 1] += value.slice(at, at + length);
      at += length - 1;
    }
  }
  return parts.map((part) => unescaped(part).trim());
}

/** What a value says, escapes undone from left to right. */
function unescaped(value: string): string {
  return value.replace(/\\([nN,;:\\])/g, (_, escaped: string) => (/n/i.test(escaped) ? '\n' : escaped));
}
