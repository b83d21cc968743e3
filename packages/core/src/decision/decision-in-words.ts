import type { Destination } from '../destination/destination';
import { isMoney, type FieldValue } from '../diff/record';
import { formatMoney } from '../reading/money';
import { counted, listInWords } from '../text';
import type { Column } from './column';
import type { DecidedTrace } from './decisions';
import type { DecisionTable } from './decision-table';
import { showOutput } from './notation/output-text';
import { timeText } from './notation/families/time-of-day';

/** What a table is, as a clause: `Who takes it: 9 rows decide stage and owner`. */
export function tableInWords({ name, rows, outputs }: DecisionTable): string {
  const said = listInWords(outputs.map((output) => output.name)) || 'nothing';
  return `${name}: ${counted(rows.length, 'row')} ${rows.length === 1 ? 'decides' : 'decide'} ${said}`;
}

/** What a table decided, without a full stop: `Who takes it: row 3, stage Enquiry, owner Ida Vos`. */
export function decidedInWords({ table, row, otherwise, said }: DecidedTrace, destination: Destination): string {
  const which = row === null ? (otherwise ? 'no row fits, so otherwise' : 'no row fits') : `row ${row + 1}`;
  return [`${table}: ${which}`, ...saidTexts(said, destination)].join(', ');
}

/** What a table said: `Owner Ida Vos, Stage Enquiry`; `nothing` where it said nothing. */
export function saidInWords({ said }: DecidedTrace, destination: Destination): string {
  return saidTexts(said, destination).join(', ') || 'nothing';
}

function saidTexts(said: DecidedTrace['said'], destination: Destination): string[] {
  return said.map(({ name, type, value }) => `${name} ${showOutput(value, type, destination)}`);
}

/** A value of a column as people read it. */
export function columnValueText(value: FieldValue | null, { family, options, input }: Column): string {
  if (value === null) return 'blank';
  if (isMoney(value)) return formatMoney(value);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (family === 'time-of-day' && input.as) return timeText(Number(value));
  const label = (key: string) => options.find((option) => option.key === key)?.label ?? key;
  return [value]
    .flat()
    .map((one) => label(String(one)).trim())
    .join(', ');
}
