import type { Readable } from 'node:stream';
import { isMoney, minorDigits, showFieldValue, type FieldDefinition, type FieldValue } from '@haycart/core';
import type { RecordShape } from '@haycart/api';
import {
  exportTable,
  exportTexts,
  type ExportCell,
  type ExportColumn,
  type ExportFormat,
} from '../../platform/export-file';
import { vCard } from './vcard';

/**
 * Records as a file. A field of money takes two columns, amount and currency; the link to the company stands in a column
 * of its own.
 */
export function exportRecords(
  format: ExportFormat,
  fields: readonly FieldDefinition[],
  portions: AsyncIterable<RecordShape[]>,
): Readable {
  if (format === 'vcf') return exportTexts(portions, vCard);
  if (format === 'jsonl') return exportTexts(portions, (record) => `${JSON.stringify(record)}\n`);
  return exportTable(format, 'Records', fields.flatMap(columnsOf), portions);
}

function columnsOf(field: FieldDefinition): ExportColumn<RecordShape>[] {
  const { key, label, type } = field;
  if (type !== 'money') return [{ heading: label, cell: (record) => cellOf(field, valueOf(record, key)) }];
  const amount = (record: RecordShape) => {
    const value = valueOf(record, key);
    return isMoney(value) ? value : null;
  };
  return [
    {
      heading: label,
      cell: (record) => {
        const money = amount(record);
        return money && money.amount / 10 ** minorDigits(money.currency);
      },
    },
    { heading: `${label} currency`, cell: (record) => amount(record)?.currency ?? null },
  ];
}

function cellOf(field: FieldDefinition, value: FieldValue | null): ExportCell {
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
