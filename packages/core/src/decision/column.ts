import { fieldOf, type Destination } from '../destination/destination';
import type { FieldValue, RecordKind } from '../diff/record';
import type { FieldDefinition, FieldOption, FieldType } from '../field/field-definition';
import type { JsonValue } from '../json';
import { answerText } from '../payload/answer-text';
import { WEEKDAYS } from '../people/person';
import type { Part } from '../value/value';
import type { FinisherContext } from '../value/finishers/finisher';
import { workOutValue } from '../value/work-out-value';
import type { DecisionInput, DecisionTable, InputAs, OutputType } from './decision-table';
import { factOf } from './facts';
import { inputKind } from './input-kinds/registry';

/** How the cells of a column are written and read, and which values there can be. */
export type Family = 'text' | 'number' | 'day' | 'yes-no' | 'options' | 'several' | 'region' | 'time-of-day';

/** An input as it is tested: what its values are, and how cells say them. */
export interface Column {
  input: DecisionInput;
  family: Family;
  type: FieldType;
  /** Where only these can be; empty where any value can. */
  options: readonly FieldOption[];
  /** Nothing lies between two neighbours of these numbers. */
  whole: boolean;
  /** Whether there may be no value. */
  mayBeBlank: boolean;
}

/** What a table may look up: the kinds of record its route writes, and the tables before it. */
export interface TableAround {
  destination: Destination;
  writes: readonly { as: string; record: RecordKind }[];
  tables: readonly DecisionTable[];
}

/** The columns of tests of a table. An input of something that is gone is read as text. */
export function columnsOf(table: DecisionTable, around: TableAround): Column[] {
  return table.inputs.map((input) => columnOf(input, around));
}

function columnOf(input: DecisionInput, around: TableAround): Column {
  const field = input.as === undefined ? fieldAt(input.of, around) : undefined;
  if (field) return fieldColumn(input, field);
  const as = input.as ?? byOutput(input.of, around);
  const { type, options = [] } = inputKind(as);
  return {
    input,
    family: familyOf(type, as),
    type,
    options,
    whole: type === 'whole-number',
    mayBeBlank: options.length === 0 && as !== 'time-of-day',
  };
}

function fieldColumn(input: DecisionInput, { type, options = [] }: FieldDefinition): Column {
  const family = familyOf(type);
  const closed = family === 'options';
  return {
    input,
    family,
    type,
    options: closed || family === 'several' ? options : [],
    whole: type === 'whole-number' || type === 'money',
    mayBeBlank: true,
  };
}

function fieldAt(part: Part, { destination, writes }: TableAround): FieldDefinition | undefined {
  const write = 'write' in part ? writes.find(({ as }) => as === part.write) : undefined;
  if (!write || !('write' in part)) return undefined;
  return fieldOf(destination, write.record, part.field) ?? factOf(write.record, part.field);
}

const AS_OF_OUTPUT: Partial<Record<OutputType, InputAs>> = { number: 'number', 'yes-no': 'yes-no' };

function byOutput(part: Part, { tables }: TableAround): InputAs {
  if (!('decision' in part)) return 'text';
  const output = tables.find(({ name }) => name === part.decision)?.outputs.find(({ name }) => name === part.output);
  return (output && AS_OF_OUTPUT[output.type]) ?? 'text';
}

const FAMILIES: Readonly<Record<FieldType, Family>> = {
  text: 'text',
  'long-text': 'text',
  email: 'text',
  phone: 'text',
  web: 'text',
  'whole-number': 'number',
  decimal: 'number',
  money: 'number',
  date: 'day',
  'date-time': 'day',
  'yes-no': 'yes-no',
  'one-of': 'options',
  person: 'options',
  'several-of': 'several',
};

function familyOf(type: FieldType, as?: InputAs): Family {
  return as === 'region' || as === 'time-of-day' ? as : FAMILIES[type];
}

/** What is read for a column: parts stand for what a submission gave, its records or an earlier table. */
export function columnValue(
  { input, type }: Column,
  read: (part: Part) => JsonValue | FieldValue | undefined,
  finishing: FinisherContext,
): FieldValue | null {
  const raw = read(input.of);
  if (input.as === undefined && 'write' in input.of) return (raw as FieldValue | undefined) ?? null;
  const texts = finishedTexts(input, raw as JsonValue | undefined, finishing);
  if (!texts.length) return null;
  const postcode = input.postcode ? answerText(read(input.postcode) as JsonValue | undefined) : '';
  const kind = inputKind(input.as ?? (type === 'decimal' ? 'number' : type === 'yes-no' ? 'yes-no' : 'text'));
  return kind.read(texts, input, postcode);
}

function finishedTexts(
  { of, finishers = [] }: DecisionInput,
  raw: JsonValue | undefined,
  finishing: FinisherContext,
): string[] {
  const texts = finishers.length
    ? [workOutValue({ parts: [of], finishers }, () => raw, finishing).text]
    : (Array.isArray(raw) ? raw : [raw]).map(answerText);
  return texts.map((text) => text.trim()).filter((text) => text !== '');
}

/** Whether the options of a column are the days of the week, which can be written as a range. */
export function areWeekdays(options: readonly FieldOption[]): boolean {
  return options.length === WEEKDAYS.length && options.every(({ key }, index) => key === WEEKDAYS[index]);
}
