import type { Readable } from 'node:stream';
import { capitalised, CREDITED, daysToWon, minorDigits, type Figure } from '@haycart/core';
import type { SourcePart, SourceRow, SourcesReport } from '@haycart/api';
import { exportTable, onePortion, type ExportColumn } from '../platform/export-file';

const HEADINGS: readonly [Figure, string][] = [
  ['views', 'Form views'],
  ['submissions', 'Submissions'],
  ['contacts', 'New contacts'],
  ['qualified', 'Qualified leads'],
  ['deals', 'Deals'],
  ['value', 'Value'],
  ['wonDeals', 'Won deals'],
  ['won', 'Won value'],
  ['wonDays', 'Days to won'],
  ['cost', 'Cost'],
];

/** A report as a table, told as far apart as it is: its columns of money add up to the total. */
export function exportSources(
  format: 'csv' | 'xlsx',
  { rows, currency, figures, split }: SourcesReport,
  by: readonly SourcePart[],
): Readable {
  const headings = HEADINGS.filter(([figure]) => figures.includes(figure));
  const isMoney = (figure: Figure) => figure === 'cost' || (CREDITED as readonly Figure[]).includes(figure);
  const unit = 10 ** minorDigits(currency);
  const columns: ExportColumn<SourceRow>[] = [
    ...(split ? [{ heading: split.label, cell: (row: SourceRow) => nameIn(split.names, row.splitValue) }] : []),
    ...by.map((part) => ({ heading: capitalised(part), cell: (row: SourceRow) => row[part] ?? '' })),
    ...headings.map(([figure, heading]) => ({
      heading,
      cell: (row: SourceRow) =>
        figure === 'wonDays' ? daysToWon(row) : isMoney(figure) ? row[figure] / unit : row[figure],
    })),
    { heading: 'Currency', cell: () => currency },
  ];
  return exportTable(format, 'Sources', columns, onePortion(rows));
}

function nameIn(names: Readonly<Record<string, string>>, value = ''): string {
  return Object.hasOwn(names, value) ? names[value]! : value;
}
