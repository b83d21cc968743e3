import { decodeText } from './decode-text';
import type { Encoding } from './encodings';
import { readDelimited } from './read-delimited';
import { readJson } from './read-json';
import { readVCards } from './read-vcards';
import type { SheetReading, SheetRow } from './sheet';

/** A file of text as rows, and how it was read. */
export type ReadTextFile =
  | { ok: true; reading: Omit<SheetReading, 'header'> & { sure: boolean }; rows: () => Generator<SheetRow> }
  | { ok: false; problem: string };

/**
 * Reads a file of people by what it is, whatever its name says: vCards, JSON, or delimited values.
 *
 * @param encoding What the text is in; guessed where it is not given.
 */
export function readTextFile(bytes: Uint8Array, encoding?: Encoding): ReadTextFile {
  const { text, encoding: readAs, sure } = decodeText(bytes, encoding);
  if (text.slice(0, 2_000).includes('\0'))
    return { ok: false, problem: 'This is no text and no workbook. Bring CSV, XLSX, JSON or vCard.' };
  const begin = text
    .slice(0, 10_000)
    .replace(/^\ufeff/, '')
    .trimStart();
  const reading = { columns: [], encoding: readAs, sure, delimiter: null };
  if (/^BEGIN:VCARD/i.test(begin)) return { ok: true, reading, rows: () => readVCards(text) };
  if (/^(?:\{|\[\s*[{\]])/.test(begin)) return { ok: true, reading, rows: () => readJson(text.replace(/^\ufeff/, '')) };
  const table = readDelimited(text);
  if (!table.ok) return table;
  const { columns, delimiter } = table.reading;
  return { ok: true, reading: { ...reading, columns, delimiter }, rows: table.rows };
}
