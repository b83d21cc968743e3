import { clausesOf, type RecordCondition } from '../condition/condition';
import type { ConditionSetting } from '../condition/condition-test';
import { checkCondition } from '../condition/evaluate';
import type { FieldDefinition } from '../field/field-definition';
import type { RecordKind } from '../diff/record';
import { jsonPointer } from '../json';
import { error, type Problem } from '../problem';

/** How a list of records is looked at: what can be kept under a name and stands in the address. */
export interface ListView {
  /** Keys of fields, in their order; with a width in pixels where somebody chose one. */
  columns: { field: string; width?: number }[];
  filter?: RecordCondition;
  sort?: ListSort;
  /** The field by whose values the records are counted. */
  group?: string;
}

export interface ListSort {
  field: string;
  down: boolean;
}

const ALWAYS: [key: string, label: string, type: FieldDefinition['type']][] = [
  ['number', 'Number', 'whole-number'],
  ['created_at', 'Created', 'date-time'],
  ['updated_at', 'Changed', 'date-time'],
];

/** Everything that a list of records can show, test and sort by: its fields, its number and when it was made and changed. */
export function listedFields(kind: RecordKind, fields: readonly FieldDefinition[]): FieldDefinition[] {
  const always = ALWAYS.map(([key, label, type]): FieldDefinition => ({
    record: kind,
    key,
    label,
    type,
    builtIn: true,
    required: false,
    kept: true,
  }));
  return [...fields.filter(({ record }) => record === kind), ...always];
}

/** Long texts and lists of values have no order worth the name. */
export function canSortBy({ type }: FieldDefinition): boolean {
  return type !== 'long-text' && type !== 'several-of';
}

/** What records can be counted by: what many of them share. */
export function canGroupBy({ type, key }: FieldDefinition): boolean {
  return ['one-of', 'several-of', 'person', 'yes-no'].includes(type) || GROUPED_TEXTS.has(key);
}

const GROUPED_TEXTS: ReadonlySet<string> = new Set([
  'country',
  'source',
  'pipeline',
  'stage',
  'status',
  'reason',
  'job_title',
]);

/** What is wrong with a view: what it names must be there and make sense. */
export function checkView(view: ListView, fields: readonly FieldDefinition[], setting: ConditionSetting): Problem[] {
  const named = (key: string) => fields.find((field) => field.key === key);
  const problems: Problem[] = view.columns.flatMap(({ field }, index) =>
    named(field) ? [] : [error('unknown-field', `There is no field “${field}”.`, jsonPointer(['columns', index]))],
  );
  const { sort, group, filter } = view;
  const sorted = sort && named(sort.field);
  if (sort && !(sorted && canSortBy(sorted)))
    problems.push(error('cannot-sort', `A list cannot be sorted by “${sort.field}”.`, '/sort/field'));
  const grouped = group === undefined ? undefined : named(group);
  if (group !== undefined && !(grouped && canGroupBy(grouped)))
    problems.push(error('cannot-group', `Records cannot be counted by “${group}”.`, '/group'));
  if (filter)
    problems.push(...checkCondition(filter, { typeOf: ({ field }) => named(field)?.type }, setting, ['filter']));
  return problems;
}

/** A sort as it stands in an address: `name`, or `-name` from the other end. */
export function readSort(text: string): ListSort {
  return text.startsWith('-') ? { field: text.slice(1), down: true } : { field: text, down: false };
}

/** Whether a view shows, tests, sorts or counts by a field. */
export function viewNamesField({ columns, filter, sort, group }: ListView, key: string): boolean {
  return (
    columns.some(({ field }) => field === key) ||
    sort?.field === key ||
    group === key ||
    (filter ? clausesOf(filter).some(({ of }) => of.field === key) : false)
  );
}

/** Whether a view tests for a stage; of which pipeline it does not say. */
export function viewNamesStage({ filter }: ListView, stage: string): boolean {
  return filter
    ? clausesOf(filter).some(({ of, value }) => of.field === 'stage' && wanted(value).includes(stage))
    : false;
}

/** The view with one stage in the stead of another. */
export function replaceStageInView(view: ListView, from: string, to: string): ListView {
  if (!viewNamesStage(view, from)) return view;
  const inCondition = (condition: RecordCondition): RecordCondition => {
    if ('all' in condition) return { all: condition.all.map(inCondition) };
    if ('any' in condition) return { any: condition.any.map(inCondition) };
    if ('not' in condition) return { not: inCondition(condition.not) };
    if (condition.of.field !== 'stage') return condition;
    const { value } = condition;
    return {
      ...condition,
      value: Array.isArray(value)
        ? value.map((one) => (one === from ? to : (one as unknown)))
        : value === from
          ? to
          : value,
    };
  };
  return { ...view, filter: inCondition(view.filter!) };
}

function wanted(value: unknown): unknown[] {
  return Array.isArray(value) ? value : [value];
}

/** A sort as it stands in an address: `-name` from the other end. */
export function writeSort({ field, down }: ListSort): string {
  return `${down ? '-' : ''}${field}`;
}
