import { decodeText, readDelimited, readJsonLines, readVCards, type SheetRow } from '@haycart/core';
import { readWorkbook } from './read-workbook';

/** A file as rows, and how it was read; or why it cannot be. */
export type ReadFile =
  | { ok: true; columns: string[]; encoding: string | null; delimiter: string | null; rows: () => Iterable<SheetRow> }
  | { ok: false; problem: string };

/** Reads a file of people by what it is, whatever its name says: XLSX, vCard, JSON Lines, or delimited values. */
export async function readFile(bytes: Buffer): Promise<ReadFile> {
  if (bytes.length === 0) return { ok: false, problem: 'There is nothing in the file.' };
  if (bytes.subarray(0, 2).toString('latin1') === 'PK') {
    const book = await readWorkbook(bytes);
    return book.ok ? { ok: true, columns: book.columns, encoding: null, delimiter: null, rows: book.rows } : book;
  }
  if (bytes.subarray(0, 4).equals(Buffer.from([0xd0, 0xcf, 0x11, 0xe0])))
    return { ok: false, problem: 'This is a workbook of an old kind (XLS). Save it as XLSX or CSV.' };
  const { text, encoding } = decodeText(bytes);
  if (text.slice(0, 2_000).includes('\0'))
    return { ok: false, problem: 'This is no text and no workbook. Bring CSV, XLSX, JSON Lines or vCard.' };
  const begin = text.replace(/^\ufeff/, '').trimStart();
  if (/^BEGIN:VCARD/i.test(begin))
    return { ok: true, columns: [], encoding, delimiter: null, rows: () => readVCards(text) };
  if (begin.startsWith('{'))
    return { ok: true, columns: [], encoding, delimiter: null, rows: () => readJsonLines(text) };
  const table = readDelimited(text);
  if (!table.ok) return table;
  const { columns, delimiter } = table.reading;
  return { ok: true, columns, encoding, delimiter, rows: table.rows };
}
