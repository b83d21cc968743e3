import { PassThrough, type Readable } from 'node:stream';
import { once } from 'node:events';
import { isMoney, minorDigits, showFieldValue, type FieldDefinition, type FieldValue } from '@haycart/core';
import type { RecordShape } from '@haycart/api';
import { stringify } from 'csv-stringify/sync';
import excel from 'exceljs';
import { vCard } from './vcard';

export const EXPORT_FORMATS = ['csv', 'xlsx', 'jsonl', 'vcf'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

export const EXPORT_TYPES: Record<ExportFormat, string> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  jsonl: 'application/jsonl; charset=utf-8',
  vcf: 'text/vcard; charset=utf-8',
};

type Cell = string | number | boolean | Date | null;

/**
 * Records as a file, written portion by portion, so that any number fits into memory. A field of money takes two
 * columns, amount and currency; the link to the company stands in a column of its own.
 */
export function exportRecords(
  format: ExportFormat,
  fields: readonly FieldDefinition[],
  portions: AsyncIterable<RecordShape[]>,
): Readable {
  const out = new PassThrough();
  const written = format === 'xlsx' ? writeWorkbook(out, fields, portions) : writeLines(format, out, fields, portions);
  written.catch((cause: Error) => out.destroy(cause));
  return out;
}

async function writeLines(
  format: Exclude<ExportFormat, 'xlsx'>,
  out: PassThrough,
  fields: readonly FieldDefinition[],
  portions: AsyncIterable<RecordShape[]>,
): Promise<void> {
  // The mark tells spreadsheets that the file is UTF-8.
  if (format === 'csv') out.write(`\uFEFF${stringify([fields.flatMap(headings)])}`);
  for await (const records of portions) {
    const text =
      format === 'csv'
        ? stringify(records.map((record) => rowOf(record, fields).map(csvCell)))
        : records.map((record) => (format === 'vcf' ? vCard(record) : `${JSON.stringify(record)}\n`)).join('');
    if (!out.write(text)) await once(out, 'drain');
  }
  out.end();
}

async function writeWorkbook(
  out: PassThrough,
  fields: readonly FieldDefinition[],
  portions: AsyncIterable<RecordShape[]>,
): Promise<void> {
  const workbook = new excel.stream.xlsx.WorkbookWriter({ stream: out, useStyles: true });
  const sheet = workbook.addWorksheet('Records', { views: [{ state: 'frozen', ySplit: 1 }] });
  const heads = sheet.addRow(fields.flatMap(headings));
  heads.font = { bold: true };
  heads.commit();
  for await (const records of portions) {
    // Texts go in as texts, which no spreadsheet takes for formulas.
    for (const record of records) sheet.addRow(rowOf(record, fields)).commit();
  }
  sheet.commit();
  await workbook.commit();
}

function headings({ label, type }: FieldDefinition): string[] {
  return type === 'money' ? [label, `${label} currency`] : [label];
}

function rowOf(record: RecordShape, fields: readonly FieldDefinition[]): Cell[] {
  return fields.flatMap((field): Cell[] => {
    const value = valueOf(record, field.key);
    if (field.type === 'money')
      return isMoney(value) ? [value.amount / 10 ** minorDigits(value.currency), value.currency] : [null, null];
    return [cellOf(field, value)];
  });
}

function cellOf(field: FieldDefinition, value: FieldValue | null): Cell {
  if (value === null) return null;
  if (field.type === 'date-time') return new Date(String(value));
  if (field.type === 'phone') return String(value);
  if (typeof value === 'number' || typeof value === 'boolean') return value;
  return showFieldValue(field, value);
}

/** A value of a record, those that are no fields of it too. */
export function valueOf(record: RecordShape, key: string): FieldValue | null {
  if (key === 'number') return record.number;
  if (key === 'created_at') return record.createdAt;
  if (key === 'updated_at') return record.updatedAt;
  if (key === 'company') return record.links.company?.[0]?.name ?? null;
  return record.values[key] ?? null;
}

/**
 * A cell that no spreadsheet runs as a formula: text that begins as one gets an apostrophe before it. Plain numbers and
 * phone numbers begin with signs too, and stay.
 */
function csvCell(cell: Cell): string {
  if (cell === null) return '';
  if (cell instanceof Date) return cell.toISOString();
  if (typeof cell === 'boolean') return cell ? 'yes' : 'no';
  const text = String(cell);
  return typeof cell === 'string' && /^[=+\-@\t\r]/.test(text) && !/^[+-]\d+$/.test(text) ? `'${text}` : text;
}
