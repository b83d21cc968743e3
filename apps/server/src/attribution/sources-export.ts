import type { Readable } from 'node:stream';
import { capitalised, CREDITED, minorDigits, type Figure } from '@haycart/core';
import type { SourcePart, SourceRow, SourcesReport } from '@haycart/api';
import { exportTable, onePortion, type ExportColumn } from '../platform/export-file';

const HEADINGS: readonly [Figure, string][] = [
  ['submissions', 'Submissions'],
  ['contacts', 'New contacts'],
  ['qualified', 'Qualified leads'],
  ['deals', 'Deals'],
  ['value', 'Value'],
  ['wonDeals', 'Won deals'],
  ['won', 'Won value'],
  ['cost', 'Cost'],
];

/** A report as a table, told as far apart as it is: its columns of money add up to the total. */
export function exportSources(
  format: 'csv' | 'xlsx',
  { rows, currency }: SourcesReport,
  by: readonly SourcePart[],
): Readable {
  const isMoney = (figure: Figure) => figure === 'cost' || (CREDITED as readonly Figure[]).includes(figure);
  const unit = 10 ** minorDigits(currency);
  const columns: ExportColumn<SourceRow>[] = [
    ...by.map((part) => ({ heading: capitalised(part), cell: (row: SourceRow) => row[part] ?? '' })),
    ...HEADINGS.map(([figure, heading]) => ({
      heading,
      cell: (row: SourceRow) => (isMoney(figure) ? row[figure] / unit : row[figure]),
    })),
    { heading: 'Currency', cell: () => currency },
  ];
  return exportTable(format, 'Sources', columns, onePortion(rows));
}
