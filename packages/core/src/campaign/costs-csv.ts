import { parse } from 'csv-parse/browser/esm/sync';
import { dateOrderOf, readDate, type DateOrder } from '../reading/date-text';
import { readMoney } from '../reading/money';
import { counted } from '../text';
import { daysBetween } from './cost';
import { hasLineOver } from './longest-line';

/** What one row of a file of costs says. */
export interface CostRow {
  /** The row in the file, from 1 below its heading. */
  row: number;
  /** The name or the code of a campaign. */
  campaign: string;
  from: string;
  to: string;
  amount: number;
  currency: string;
  source?: string;
  medium?: string;
}

/** The rows of a cost file, and the rows that cannot be read, each with the reason. */
export interface CostsRead {
  rows: CostRow[];
  refused: { row: number; text: string }[];
}

export const MOST_COST_ROWS = 20_000;
const LONGEST_FILE = 5_000_000;
const LONGEST_LINE = 5_000;

type Column = 'campaign' | 'from' | 'to' | 'amount' | 'currency' | 'source' | 'medium';
const HEADINGS: readonly [Column, RegExp][] = [
  ['campaign', /^(utm_)?(campaign|kampagne|campagne|campaña|campagna|campanha|kampanj|kampania)( name| id)?$/],
  ['from', /^(day|date|from|start|starts|tag|datum|jour|fecha|día|giorno|data|dag|von|dzień)$/],
  ['to', /^(to|until|end|ends|bis|fin|hasta|tot|fino a|até)$/],
  [
    'amount',
    /^(cost|costs|amount|spend|spent|kosten|betrag|coût|montant|coste|gasto|importe|costo|custo|koszt)\b.{0,20}$/,
  ],
  ['currency', /^(currency|currency code|währung|devise|moneda|valuta|moeda|waluta)$/],
  ['source', /^(utm_)?source$/],
  ['medium', /^(utm_)?medium$/],
];

/** Reads a cost file (RFC 4180, or with semicolons or tabs). Each row has a day or period, a campaign and an amount. Returns a sentence when the file cannot be read. */
export function readCostsCsv(text: string, defaultCurrency: string): CostsRead | string {
  if (text.length > LONGEST_FILE) return 'The file is larger than costs are.';
  if (hasLineOver(text, LONGEST_LINE)) return 'The file has a line that is longer than a row of costs is.';
  const head = text.slice(0, text.search(/[\r\n]|$/));
  const delimiter = [',', ';', '\t'].sort((one, other) => head.split(other).length - head.split(one).length)[0]!;
  let lines: string[][];
  try {
    lines = parse(text, { bom: true, relax_column_count: true, skip_empty_lines: true, trim: true, delimiter });
  } catch (problem) {
    return `The file cannot be read as CSV: ${problem instanceof Error ? problem.message : String(problem)}`;
  }
  const columns = (lines[0] ?? []).map((cell) => HEADINGS.find(([, name]) => name.test(cell.toLowerCase()))?.[0]);
  for (const [needed, word] of [
    ['campaign', 'Campaign'],
    ['from', 'Day'],
    ['amount', 'Cost'],
  ] as const)
    if (!columns.includes(needed))
      return `The file has no column “${word}”. Its first row names the columns: Day, Campaign, Cost.`;
  const body = lines.slice(1);
  if (body.length > MOST_COST_ROWS) return `A file brings at most ${MOST_COST_ROWS.toLocaleString('en-GB')} rows.`;
  const cells = body.map((line) => cellsOf(line, columns));
  const order = dateOrderOf(cells.flatMap(({ from = '', to = '' }) => [from, to]).filter(Boolean)) ?? 'day-first';
  const read: CostsRead = { rows: [], refused: [] };
  cells.forEach((cell, index) => {
    const row = readRow(cell, index + 1, order, defaultCurrency);
    if (typeof row === 'string') read.refused.push({ row: index + 1, text: row });
    else read.rows.push(row);
  });
  return read;
}

type Cells = Partial<Record<Column, string>>;

/** When two columns have the same meaning, the first is used. */
function cellsOf(line: readonly string[], columns: readonly (Column | undefined)[]): Cells {
  const cells: Cells = {};
  columns.forEach((column, index) => {
    if (column && cells[column] === undefined) cells[column] = line[index] ?? '';
  });
  return cells;
}

function readRow(cells: Cells, row: number, order: DateOrder, defaultCurrency: string): CostRow | string {
  const { campaign = '', from = '', to = '', amount = '', currency = '', source, medium } = cells;
  if (campaign === '') return 'It names no campaign.';
  const first = readDate(from, order);
  if (!first.ok) return `“${from.slice(0, 60)}” is no day.`;
  const last = to === '' ? first : readDate(to, order);
  if (!last.ok) return `“${to.slice(0, 60)}” is no day.`;
  if (!daysBetween(first.date, last.date).length) return `From ${first.date} to ${last.date} is no period of costs.`;
  const money = readMoney(amount, /^[a-z]{3}$/i.test(currency) ? currency.toUpperCase() : defaultCurrency);
  if (!money || money.amount < 0) return `“${amount.slice(0, 60)}” is no cost.`;
  return {
    row,
    campaign,
    from: first.date,
    to: last.date,
    ...money,
    ...(source ? { source } : {}),
    ...(medium ? { medium } : {}),
  };
}

/** `3 rows cannot be read. Row 4: “x” is no day.` */
export function refusedInWords(refused: CostsRead['refused']): string {
  const [first] = refused;
  if (!first) return '';
  return `${counted(refused.length, 'row')} cannot be read. Row ${first.row}: ${first.text}`;
}
