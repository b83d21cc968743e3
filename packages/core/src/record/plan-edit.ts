import { checkFieldValue } from '../field/check-value';
import { fieldOf, type Destination } from '../destination/destination';
import type { FieldDefinition } from '../field/field-definition';
import { sameValue, type FieldValue, type FieldValues, type RecordKind } from '../diff/record';
import { changesBetween, type FieldChange } from '../diff/records-diff';
import { jsonPointer, type JsonValue } from '../json';
import { error, type Problem } from '../problem';
import type { KnownRecord } from '../diff/known-record';
import { derivedValues } from '../route/planning/plan-fields';

/** What somebody wants to change about a record. */
export interface RecordEdit {
  /** Values by field; `null` clears. */
  values?: Record<string, JsonValue>;
  /** What whoever edits saw before; a field that holds something else by now is a conflict, not overwritten. */
  was?: Record<string, JsonValue>;
  /** Put into and taken out of lists of values: tags, lists. */
  add?: Record<string, string[]>;
  remove?: Record<string, string[]>;
}

/** What an edit changes, or what stands in its way. */
export interface PlannedEdit {
  fields: Record<string, FieldChange>;
  problems: Problem[];
  /** Fields that somebody changed meanwhile, with what they hold now. */
  conflicts: { field: string; now: FieldValue | null }[];
}

/** What an edit would do to a record. Values are checked as a route's are; what follows from them follows. */
export function planEdit(
  record: Pick<KnownRecord, 'kind' | 'values'>,
  edit: RecordEdit,
  destination: Destination,
): PlannedEdit {
  const problems: Problem[] = [];
  const values: FieldValues = { ...record.values };
  const set = (field: FieldDefinition, value: FieldValue | null, at: string) => {
    if (value === null && field.required)
      problems.push(error('required-blank', `${field.label} is needed and cannot be left blank.`, at));
    else if (value === null) delete values[field.key];
    else values[field.key] = value;
  };
  for (const [key, given] of Object.entries(edit.values ?? {})) {
    const at = jsonPointer(['values', key]);
    const field = editable(record.kind, key, at, destination, problems);
    if (!field) continue;
    const { value, problem } = checkFieldValue(field, given, destination);
    if (problem) problems.push({ ...problem, at });
    else set(field, value, at);
  }
  for (const way of ['add', 'remove'] as const) {
    for (const [key, given] of Object.entries(edit[way] ?? {})) {
      const at = jsonPointer([way, key]);
      const field = editable(record.kind, key, at, destination, problems);
      if (!field) continue;
      const { value, problem } = checkFieldValue(field, given, destination);
      if (problem && way === 'add') problems.push({ ...problem, at });
      else set(field, changedList(values[key], (value ?? given) as string[], way), at);
    }
  }
  keepFirst(record, edit, values);
  Object.assign(values, derivedValues(record.kind, values, record.values));
  return {
    fields: problems.length ? {} : changesBetween(record.values, values),
    problems,
    conflicts: conflictsOf(record, edit, destination),
  };
}

/** The field of a record that people may set by hand, or a problem that says why not. */
function editable(
  kind: KnownRecord['kind'],
  key: string,
  at: string,
  destination: Destination,
  problems: Problem[],
): FieldDefinition | null {
  const field = fieldOf(destination, kind, key);
  if (!field) problems.push(error('unknown-field', `A ${kind} has no field “${key}”.`, at));
  else if (field.kept && !field.byHand)
    problems.push(error('kept-field', `${field.label} is kept by Hay Cart and cannot be edited.`, at));
  else return field;
  return null;
}

function changedList(before: FieldValue | undefined, words: readonly string[], way: 'add' | 'remove'): string[] | null {
  const held = Array.isArray(before) ? before : [];
  const after =
    way === 'add'
      ? [...held, ...words.filter((word) => !held.includes(word))]
      : held.filter((one) => !words.includes(one));
  return after.length ? after : null;
}

/** Fields that hold the first of a list. */
const FIRST_OF: Partial<Record<RecordKind, readonly (readonly [one: string, all: string])[]>> = {
  contact: [
    ['email', 'emails'],
    ['phone', 'phones'],
  ],
  company: [['domain', 'domains']],
};

/** The first of all e-mails and phones is the one; whoever changes the list changes the one too. */
function keepFirst({ kind }: Pick<KnownRecord, 'kind'>, { values: given = {} }: RecordEdit, values: FieldValues): void {
  for (const [one, all] of FIRST_OF[kind] ?? []) {
    if (all in given && !(one in given)) {
      const first = Array.isArray(values[all]) ? values[all][0] : undefined;
      if (first === undefined) delete values[one];
      else values[one] = first;
    }
  }
}

function conflictsOf(
  record: Pick<KnownRecord, 'kind' | 'values'>,
  { was = {} }: RecordEdit,
  destination: Destination,
): PlannedEdit['conflicts'] {
  return Object.entries(was).flatMap(([key, seen]) => {
    const field = fieldOf(destination, record.kind, key);
    const now = record.values[key] ?? null;
    const { value } = field ? checkFieldValue({ ...field }, seen, destination) : { value: null };
    return sameValue(value, now) ? [] : [{ field: key, now }];
  });
}

/** Problems of a record that is to be made: required fields that nobody filled. */
export function missingFields(kind: KnownRecord['kind'], values: FieldValues, destination: Destination): Problem[] {
  return destination.fields
    .filter(({ record, required, kept, key }) => record === kind && required && !kept && values[key] === undefined)
    .map(({ key, label }) => error('required-blank', `${label} is needed on a ${kind}.`, jsonPointer(['values', key])));
}
