import type { FieldValue, FieldValues } from '../../diff/record';
import { sameValue } from '../../diff/record';
import { fieldOf, type Destination } from '../../destination/destination';
import { readFieldValue } from '../../field/field-value';
import { optionsToAdd } from '../../field/options-to-add';
import type { Finished, FinisherContext } from '../../value/finishers/finisher';
import { workOutValue, type PartReader, type ValueTrace } from '../../value/work-out-value';
import type { Problem } from '../../problem';
import type { Fill, Write } from '../../definition/route-definition';
import type { KnownRecord } from '../../diff/known-record';
import type { Submission } from '../../payload/submission';
import type { FieldTrace, NewOption } from './plan';

/** One fill with its value worked out: `null` is blank. */
export interface FilledValue {
  fill: Fill;
  value: FieldValue | null;
  trace: ValueTrace;
  problems: Problem[];
  /** Why the run waits for a person. */
  hold?: Finished['hold'];
  newOptions: NewOption[];
  /** Whether something was given that does not fit the field. */
  unreadable: boolean;
}

/** What fills are worked out from. */
export interface FillGround {
  submission: Submission;
  read: PartReader;
  finishing: FinisherContext;
  destination: Destination;
}

/** Works out every fill of a write. */
export function workOutFills(write: Write, ground: FillGround): FilledValue[] {
  return write.fills.map((fill) => workOutFill(write.record, fill, ground));
}

/** The fills of each submission that were worked out already, upon the same destination. */
const workedOut = new WeakMap<Submission, { destination: Destination; fills: Map<Fill, FilledValue> }>();

/**
 * Works out one fill. What needs only the submission is worked out once for each, since it is asked for when records are
 * looked up, when the run is planned, and again by another version of the route that has the same fill.
 */
export function workOutFill(record: Write['record'], fill: Fill, ground: FillGround): FilledValue {
  const { submission, destination } = ground;
  if (fill.value.parts.some((part) => 'write' in part || 'decision' in part)) return workOut(record, fill, ground);
  let known = workedOut.get(submission);
  if (known?.destination !== destination) workedOut.set(submission, (known = { destination, fills: new Map() }));
  let filled = known.fills.get(fill);
  if (!filled) known.fills.set(fill, (filled = workOut(record, fill, ground)));
  return filled;
}

function workOut(record: Write['record'], fill: Fill, { read, finishing, destination }: FillGround): FilledValue {
  const worked = workOutValue(fill.value, read, finishing);
  const field = fieldOf(destination, record, fill.field)!;
  const added = optionsToAdd(field, worked.newOptions);
  const extended = added.length ? { ...field, options: [...(field.options ?? []), ...added] } : field;
  const fitting = readFieldValue(extended, worked.text, destination);
  const problems = [...worked.problems, ...(fitting.problem ? [fitting.problem] : [])];
  const given = worked.trace.parts.some(({ part, text }) => !('text' in part) && text.trim() !== '');
  return {
    fill,
    value: fitting.value,
    trace: worked.trace,
    problems,
    hold: worked.hold,
    newOptions: added.map((option) => ({ record, field: field.key, option })),
    unreadable: given && fitting.value === null && problems.length > 0,
  };
}

/**
 * Whether a record can be made of what was given: something that fits, only what does not, or nothing at all. Fixed text
 * and the visit make no record.
 */
export function givenFor(filled: readonly FilledValue[]): 'something' | 'unreadable' | 'nothing' {
  const answered = filled.filter(({ fill }) => fill.value.parts.some((part) => 'answer' in part || 'write' in part));
  if (!answered.length || answered.some(({ value }) => value !== null)) return 'something';
  return answered.some(({ unreadable }) => unreadable) ? 'unreadable' : 'nothing';
}

/** Decides for each fill what happens to its field, by the route's rules and by what arrived later already. */
export function planFields(
  filled: readonly FilledValue[],
  known: KnownRecord | undefined,
  rules: { fillBlanks: boolean; leave: boolean; at: string },
): FieldTrace[] {
  return filled.map(({ fill, value, trace, unreadable }) => {
    const before = known?.values[fill.field] ?? null;
    const keep = (why: FieldTrace['why']): FieldTrace => ({
      field: fill.field,
      before,
      after: before,
      offered: sameValue(value, before) ? null : value,
      did: before === null && value === null ? 'blank' : 'keep',
      why,
      trace,
    });
    const write = (did: 'write' | 'clear'): FieldTrace => ({
      field: fill.field,
      before,
      after: value,
      offered: null,
      did,
      why: null,
      trace,
    });

    if (unreadable) return keep('unreadable');
    if (sameValue(value, before)) return { ...keep(null), did: value === null ? 'blank' : 'same' };
    if (rules.leave) return keep('never');
    if (fill.overwrite === 'unless-typed' && before !== null && known?.typed?.includes(fill.field))
      return keep('unless-typed');
    const later = known !== undefined && (known.writtenAt[fill.field] ?? '') > rules.at;
    if (value === null) return fill.ifEmpty === 'clear' && !later && !rules.fillBlanks ? write('clear') : keep(null);
    if (before === null) return later ? keep('later') : write('write');
    if (rules.fillBlanks) return keep('fill-blanks');
    if (fill.overwrite === 'if-blank' || fill.overwrite === 'never') return keep(fill.overwrite);
    return later ? keep('later') : write('write');
  });
}

/** The values of a record after its fields were planned, with those that Hay Cart derives itself. */
export function valuesAfter(
  record: Write['record'],
  before: FieldValues,
  fields: readonly FieldTrace[],
): { values: FieldValues; derived: FieldTrace[] } {
  const values = { ...before };
  for (const { field, after } of fields) {
    if (after === null) delete values[field];
    else values[field] = after;
  }
  const wanted = derivedValues(record, values, before);
  const derived = Object.entries(wanted)
    .filter(([field, value]) => !sameValue(values[field], value))
    .map(([field, after]): FieldTrace => ({
      field,
      before: before[field] ?? null,
      after,
      offered: null,
      did: 'write',
      why: 'derived',
      trace: null,
    }));
  return { values: { ...values, ...wanted }, derived };
}

/** Values that follow from others: the full name (while nobody gave another), all e-mails and phones, a company named by its domain. */
export function derivedValues(record: Write['record'], values: FieldValues, before: FieldValues): FieldValues {
  const derived: FieldValues = {};
  if (record === 'contact') {
    const name = joinedName(values);
    const followed =
      values.full_name === undefined ||
      (values.full_name === before.full_name && before.full_name === joinedName(before));
    if (followed && name) derived.full_name = name;
    Object.assign(derived, withOne(values, 'email', 'emails'), withOne(values, 'phone', 'phones'));
  }
  if (record === 'company') {
    if (values.name === undefined && values.domain !== undefined) derived.name = values.domain;
    Object.assign(derived, withOne(values, 'domain', 'domains'));
  }
  return derived;
}

/** The list of all, with the one before the others where it is not among them. */
function withOne(values: FieldValues, one: string, all: string): FieldValues {
  const first = values[one];
  const known = Array.isArray(values[all]) ? values[all] : [];
  return typeof first === 'string' && !known.includes(first) ? { [all]: [first, ...known] } : {};
}

function joinedName({ first_name: first, last_name: last }: FieldValues): string {
  return [first, last].filter(Boolean).join(' ');
}
