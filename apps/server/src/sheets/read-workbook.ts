import { inflateRawSync } from 'node:zlib';
import { columnNames, looksLikeHeader, rowsByColumn, tableProblem, type Cells, type SheetRow } from '@haycart/core';
import excel from 'exceljs';

/** What a workbook may come to when it is unpacked; more is none of people, or made to fill the memory. */
const LARGEST_UNPACKED = 300 * 1024 * 1024;
const END_OF_DIRECTORY = 0x06054b50;
const DIRECTORY_ENTRY = 0x02014b50;
const STORED = 0;
const DEFLATED = 8;

/** The first sheet of a workbook (ECMA-376), read; or why it cannot be. */
export type ReadWorkbook =
  { ok: true; columns: string[]; header: boolean; rows: () => Iterable<SheetRow> } | { ok: false; problem: string };

/** Reads an XLSX workbook: its first sheet with anything in it. What a formula came to counts, not the formula. */
export async function readWorkbook(bytes: Buffer): Promise<ReadWorkbook> {
  const danger = unpackingProblem(bytes);
  if (danger) return { ok: false, problem: danger };
  const book = new excel.Workbook();
  try {
    await book.xlsx.load(bytes as unknown as Parameters<typeof book.xlsx.load>[0]);
  } catch {
    return {
      ok: false,
      problem: 'The file says that it is a workbook, and cannot be read as one. Save it again as XLSX or CSV.',
    };
  }
  const sheet = book.worksheets.find(({ actualRowCount }) => actualRowCount > 0);
  if (!sheet) return { ok: false, problem: 'There is nothing in the workbook.' };
  const all: Cells[] = [];
  sheet.eachRow((row, number) => {
    const cells: string[] = [];
    row.eachCell({ includeEmpty: true }, (cell) => cells.push(cellText(cell)));
    all.push({ row: number, cells });
  });
  const [first] = all;
  const cells = first && 'cells' in first ? first.cells : [];
  const header = looksLikeHeader(cells);
  const columns = columnNames(cells, header);
  const problem = tableProblem(columns);
  if (problem) return { ok: false, problem };
  return { ok: true, columns, header, rows: () => rowsByColumn(columns, header ? all.slice(1) : all) };
}

function cellText(cell: excel.Cell): string {
  if (cell.value instanceof Date) {
    const iso = cell.value.toISOString();
    return iso.endsWith('T00:00:00.000Z') ? iso.slice(0, 10) : iso;
  }
  if (cell.type === excel.ValueType.Formula && cell.result instanceof Date)
    return cell.result.toISOString().slice(0, 10);
  return cell.text ?? '';
}

/**
 * Unpacks the parts of a zip one by one, each no further than allowed, since what a zip says of its own size may be a lie.
 * Answers why it must not be opened.
 */
function unpackingProblem(bytes: Buffer): string | null {
  let left = LARGEST_UNPACKED;
  try {
    for (const { start, size, method } of entriesOf(bytes)) {
      const packed = bytes.subarray(start, start + size);
      left -= method === STORED ? packed.length : inflateRawSync(packed, { maxOutputLength: Math.max(1, left) }).length;
      if (left <= 0) return tooLarge();
    }
    return null;
  } catch (cause) {
    if ((cause as { code?: string }).code === 'ERR_BUFFER_TOO_LARGE') return tooLarge();
    return 'The file is no workbook, or a damaged one. Save it again as XLSX or CSV.';
  }
}

function tooLarge(): string {
  return `Unpacked, the workbook is larger than ${LARGEST_UNPACKED / 1024 / 1024} MB. Save the sheet with the people as CSV.`;
}

/** The parts of a zip by its central directory (APPNOTE 6.3.10, 4.3.12). */
function entriesOf(bytes: Buffer): { start: number; size: number; method: number }[] {
  let end = bytes.length - 22;
  while (end >= 0 && bytes.readUInt32LE(end) !== END_OF_DIRECTORY) end -= 1;
  if (end < 0) throw new Error('no directory');
  const entries = [];
  let at = bytes.readUInt32LE(end + 16);
  for (let left = bytes.readUInt16LE(end + 10); left > 0; left--) {
    if (bytes.readUInt32LE(at) !== DIRECTORY_ENTRY) throw new Error('no entry');
    const method = bytes.readUInt16LE(at + 10);
    if (method !== STORED && method !== DEFLATED) throw new Error('unknown method');
    const local = bytes.readUInt32LE(at + 42);
    const start = local + 30 + bytes.readUInt16LE(local + 26) + bytes.readUInt16LE(local + 28);
    entries.push({ start, size: bytes.readUInt32LE(at + 20), method });
    at += 46 + bytes.readUInt16LE(at + 28) + bytes.readUInt16LE(at + 30) + bytes.readUInt16LE(at + 32);
  }
  return entries;
}
