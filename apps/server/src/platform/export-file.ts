import { once } from 'node:events';
import { PassThrough, type Readable } from 'node:stream';
import { stringify } from 'csv-stringify/sync';
import excel from 'exceljs';
import type { FastifyReply } from 'fastify';
import { GrowingFile } from './growing-file';

export const EXPORT_TYPES = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  jsonl: 'application/jsonl; charset=utf-8',
  vcf: 'text/vcard; charset=utf-8',
} as const;
export type ExportFormat = keyof typeof EXPORT_TYPES;

/** Rows read at once while a file is written. */
export const EXPORT_PORTION = 1_000;

export type ExportCell = string | number | boolean | Date | null;

/** A column of an exported table. */
export interface ExportColumn<Row> {
  heading: string;
  cell: (row: Row) => ExportCell;
}

/** The characters that a cell of a workbook holds at most, as spreadsheets have it. */
const LONGEST_CELL = 32_767;
const CUT = ' … (cut: a cell of a workbook holds no more; CSV and JSON Lines have all of it)';

/** A table as a file, written portion by portion, so that any number of rows fits into memory. */
export function exportTable<Row>(
  format: 'csv' | 'xlsx',
  name: string,
  columns: readonly ExportColumn<Row>[],
  portions: AsyncIterable<readonly Row[]>,
): Readable {
  return written((out) =>
    format === 'csv' ? writeLines(out, csvTexts(columns, portions)) : writeWorkbook(out, name, columns, portions),
  );
}

/** Rows that are few, as a table is written from. */
export async function* onePortion<Row>(rows: readonly Row[]): AsyncGenerator<readonly Row[]> {
  yield rows;
}

/** Rows as a file of one text after the other. */
export function exportTexts<Row>(portions: AsyncIterable<readonly Row[]>, textOf: (row: Row) => string): Readable {
  return written((out) => writeLines(out, texts(portions, textOf)));
}

/** A file so small is sent with its length, and a failure of its writing with a problem. */
const WHOLE = 64 * 1_024;

/**
 * Sends a file to be kept under a name, while it is written aside: neither does a slow reader keep a transaction open, nor
 * does a failure look like the end of the file, since the connection breaks then.
 *
 * @param write Is given what takes the file's text; the transaction that it reads in ends with it.
 */
export async function sendExport(
  reply: FastifyReply,
  name: string,
  format: ExportFormat,
  write: (take: (source: Readable) => Promise<void>) => Promise<void>,
): Promise<void> {
  const file = await GrowingFile.begin();
  const writing = write((source) => file.write(source));
  writing.catch((cause: Error) => file.fail(cause));
  try {
    await Promise.race([file.holds(WHOLE), writing]);
    if (file.size < WHOLE) {
      await writing;
      void reply.header('content-length', file.size);
    }
  } catch (cause) {
    await file.leave();
    throw cause;
  }
  void reply
    .header('content-type', EXPORT_TYPES[format])
    .header('content-disposition', `attachment; filename="${name}.${format}"`)
    .send(file.read());
}

function written(write: (out: PassThrough) => Promise<void>): Readable {
  const out = new PassThrough();
  write(out).catch((cause: Error) => out.destroy(cause));
  return out;
}

async function writeLines(out: PassThrough, lines: AsyncIterable<string>): Promise<void> {
  for await (const text of lines) if (!out.write(text)) await once(out, 'drain');
  out.end();
}

async function* texts<Row>(
  portions: AsyncIterable<readonly Row[]>,
  textOf: (row: Row) => string,
): AsyncGenerator<string> {
  for await (const rows of portions) yield rows.map(textOf).join('');
}

async function* csvTexts<Row>(
  columns: readonly ExportColumn<Row>[],
  portions: AsyncIterable<readonly Row[]>,
): AsyncGenerator<string> {
  // The mark tells spreadsheets that the file is UTF-8.
  yield `\uFEFF${stringify([columns.map(({ heading }) => csvCell(heading))])}`;
  for await (const rows of portions) yield stringify(rows.map((row) => columns.map(({ cell }) => csvCell(cell(row)))));
}

async function writeWorkbook<Row>(
  out: PassThrough,
  name: string,
  columns: readonly ExportColumn<Row>[],
  portions: AsyncIterable<readonly Row[]>,
): Promise<void> {
  const workbook = new excel.stream.xlsx.WorkbookWriter({ stream: out, useStyles: true });
  const sheet = workbook.addWorksheet(name, { views: [{ state: 'frozen', ySplit: 1 }] });
  const heads = sheet.addRow(columns.map(({ heading }) => heading));
  heads.font = { bold: true };
  heads.commit();
  for await (const rows of portions) {
    // Texts go in as texts, which no spreadsheet takes for formulas.
    for (const row of rows) sheet.addRow(columns.map(({ cell }) => workbookCell(cell(row)))).commit();
  }
  sheet.commit();
  await workbook.commit();
}

function workbookCell(cell: ExportCell): ExportCell {
  return typeof cell === 'string' && cell.length > LONGEST_CELL ? cell.slice(0, LONGEST_CELL - CUT.length) + CUT : cell;
}

/**
 * A cell that no spreadsheet runs as a formula: text that begins as one gets an apostrophe before it. Plain numbers and
 * phone numbers begin with signs too, and stay.
 */
export function csvCell(cell: ExportCell): string {
  if (cell === null) return '';
  if (cell instanceof Date) return cell.toISOString();
  if (typeof cell === 'boolean') return cell ? 'yes' : 'no';
  const text = String(cell);
  return typeof cell === 'string' && /^[\s\u200b\ufeff]*[=+\-@\t\r]/.test(text) && !/^[+-]\d+$/.test(text)
    ? `'${text}`
    : text;
}
