import {
  aboveHeader,
  HEAD_ROWS,
  readTextFile,
  rowsByColumn,
  tableHead,
  tableProblem,
  type Cells,
  type Encoding,
  type SheetRow,
} from '@haycart/core';
import { openWorkbook, type Workbook } from './read-workbook';
import { UnreadableFile } from './zip-parts';

/** How a file was read. */
export interface FileReading {
  columns: string[];
  encoding: string | null;
  /** Whether it is likely in no other encoding. */
  sure: boolean;
  delimiter: string | null;
  /** Of a workbook: the worksheet that is read, and the others that have something in them. */
  worksheet: string | null;
  left: string[];
}

/** What whoever brought a file chose; null is for the reader to tell. */
export interface ReadingChoice {
  encoding: Encoding | null;
  worksheet: string | null;
}

/** A file as rows, one after the other, and how it is read. */
export interface ReadFile {
  reading: FileReading;
  rows: Iterator<SheetRow> | AsyncIterator<SheetRow>;
}

/**
 * Reads a file of people by what it is, whatever its name says: XLSX, vCard, JSON Lines, or delimited values.
 *
 * @throws UnreadableFile
 */
export async function readFile(bytes: Buffer, { encoding, worksheet }: ReadingChoice): Promise<ReadFile> {
  if (bytes.length === 0) throw new UnreadableFile('There is nothing in the file.');
  if (bytes.subarray(0, 2).toString('latin1') === 'PK') return workbook(bytes, worksheet);
  if (bytes.subarray(0, 4).equals(Buffer.from([0xd0, 0xcf, 0x11, 0xe0])))
    throw new UnreadableFile('This is a workbook of an old kind (XLS). Save it as XLSX or CSV.');
  const read = readTextFile(bytes, encoding ?? undefined);
  if (!read.ok) throw new UnreadableFile(read.problem);
  return { reading: { ...read.reading, worksheet: null, left: [] }, rows: read.rows() };
}

/** The chosen worksheet of a workbook, or the first with anything in it. */
async function workbook(bytes: Buffer, chosen: string | null): Promise<ReadFile> {
  const book = await openWorkbook(bytes);
  if (chosen !== null && !book.worksheets.includes(chosen))
    throw new UnreadableFile(`There is no worksheet “${chosen}” in the workbook.`);
  for (const worksheet of chosen === null ? book.worksheets : [chosen]) {
    const rows = book.rows(worksheet);
    const begin = await firstOf(rows, HEAD_ROWS);
    if (!begin.length) continue;
    const { columns, at } = tableHead(begin);
    const problem = tableProblem(columns);
    if (problem) throw new UnreadableFile(problem);
    const left = await filled(book, worksheet);
    return {
      reading: { columns, encoding: null, sure: true, delimiter: null, worksheet, left },
      rows: byColumn(columns, begin, at, rows),
    };
  }
  throw new UnreadableFile(`There is nothing in the ${chosen === null ? 'workbook' : `worksheet “${chosen}”`}.`);
}

/** The other worksheets that have a row. One that is damaged is none. */
async function filled(book: Workbook, read: string): Promise<string[]> {
  const left: string[] = [];
  for (const name of book.worksheets.slice(0, MOST_WORKSHEETS)) {
    if (name === read) continue;
    const first = await firstOf(book.rows(name), 1).catch(() => []);
    if (first.length) left.push(name);
  }
  return left;
}

/** Of more worksheets the names are not told. */
const MOST_WORKSHEETS = 50;

async function firstOf(rows: AsyncGenerator<Cells>, most: number): Promise<Cells[]> {
  const taken: Cells[] = [];
  while (taken.length < most) {
    const next = await rows.next();
    if (next.done) break;
    taken.push(next.value);
  }
  return taken;
}

async function* byColumn(
  columns: readonly string[],
  begin: readonly Cells[],
  header: number,
  rows: AsyncIterable<Cells>,
): AsyncGenerator<SheetRow> {
  for (const row of begin.slice(0, Math.max(header, 0))) yield aboveHeader(row);
  yield* rowsByColumn(columns, begin.slice(header + 1));
  for await (const row of rows) yield* rowsByColumn(columns, [row]);
}
