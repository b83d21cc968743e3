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
      if (begun !== null) yield cardRow(begun, card);
      begun = null;
    } else if (begun !== null) card.push(line);
    else if (line.trim() !== '')
      yield { row: index + 1, text: line.slice(0, 1_000), refused: 'It stands outside of a card.' };
  }
  if (begun !== null) yield unfinished(begun, card);
}

function unfinished(row: number, card: readonly string[]): SheetRow {
  return { row, text: card.slice(0, 3).join(' '), refused: 'The card is never ended.' };
}

function cardRow(row: number, card: readonly string[]): SheetRow {
  const values: JsonObject = {};
  const put = (name: string, value: string) => {
    const text = value.trim();
    if (!text) return;
    let free = name;
    for (let n = 2; free in values; n++) free = `${name} ${n}`;
    values[free] = text;
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
  const whole: string[] = [];
  for (const line of card) {
    const last = whole.length - 1;
    if (last >= 0 && /^[ \t]/.test(line)) whole[last] += line.slice(1);
    else if (last >= 0 && /QUOTED-PRINTABLE/i.test(whole[last]!) && whole[last]!.endsWith('='))
      whole[last] = whole[last]!.slice(0, -1) + line;
    else whole.push(line);
  }
  return whole.flatMap((line) => {
    const read = /^(?:[\w-]+\.)?([\w-]+)((?:;[^:"]*(?:"[^"]*")?)*):(.*)$/s.exec(line);
    return read ? [{ name: read[1]!.toUpperCase(), parameters: read[2]!, value: read[3]! }] : [];
  });
}

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
  return new TextDecoder().decode(new Uint8Array(bytes));
}

function partsOf(value: string): string[] {
  return value.split(/(?<!\\);/).map((part) => unescaped(part).trim());
}

function unescaped(value: string): string {
  return value.replace(/\\n/gi, '\n').replace(/\\([,;\\])/g, '$1');
}
