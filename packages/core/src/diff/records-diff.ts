import {
  sameValue,
  type FieldValue,
  type FieldValues,
  type Link,
  type RecordKind,
  type RecordsState,
  type RecordState,
} from './record';

/** What one field held before and holds after; `null` is blank. The two always differ. */
export interface FieldChange {
  before: FieldValue | null;
  after: FieldValue | null;
}

/** What happened to the fields of one record. */
export interface RecordChange {
  kind: RecordKind;
  fields: Record<string, FieldChange>;
}

/**
 * The difference between two states of some records: what was created, changed and removed, and which links were made
 * and undone. Diffs form a small algebra, whose laws the tests check:
 *
 * - `reverse(reverse(d)) = d`
 * - `apply(reverse(d), apply(d, s)) = s`
 * - `apply(squash(a, b), s) = apply(b, apply(a, s))`, and squash is associative
 *
 * A record stands in at most one of `created`, `changed` and `removed`.
 */
export interface RecordsDiff {
  created: Record<string, RecordState>;
  changed: Record<string, RecordChange>;
  removed: Record<string, RecordState>;
  linked: Link[];
  unlinked: Link[];
}

/** A diff does not fit the state it is applied to: it creates what exists, or changes what is not there or differs. */
export class DiffMisfitError extends Error {
  constructor(
    readonly record: string,
    readonly field?: string,
  ) {
    super(
      field === undefined
        ? `The diff does not fit record ${record}.`
        : `The diff does not fit field ${field} of record ${record}.`,
    );
    this.name = 'DiffMisfitError';
  }
}

export function emptyDiff(): RecordsDiff {
  return { created: {}, changed: {}, removed: {}, linked: [], unlinked: [] };
}

export function isEmptyDiff(diff: RecordsDiff): boolean {
  const none = (things: object) => Object.keys(things).length === 0;
  return none(diff.created) && none(diff.changed) && none(diff.removed) && !diff.linked.length && !diff.unlinked.length;
}

/**
 * The state after a diff. The state given is not touched.
 *
 * @throws DiffMisfitError when the diff was not made for this state.
 */
export function applyDiff(diff: RecordsDiff, state: RecordsState): RecordsState {
  const records = { ...state.records };
  for (const id in diff.removed) {
    if (!records[id] || !sameValues(records[id].values, diff.removed[id]!.values)) throw new DiffMisfitError(id);
    delete records[id];
  }
  for (const id in diff.created) {
    if (records[id]) throw new DiffMisfitError(id);
    records[id] = diff.created[id]!;
  }
  for (const id in diff.changed) {
    const record = records[id];
    if (!record) throw new DiffMisfitError(id);
    records[id] = { ...record, values: applyChange(id, diff.changed[id]!, record.values) };
  }
  const links = indexLinks(state.links);
  for (const link of diff.unlinked) {
    if (!links.delete(linkKey(link))) throw new DiffMisfitError(link.from);
  }
  for (const link of diff.linked) {
    if (links.has(linkKey(link))) throw new DiffMisfitError(link.from);
    links.set(linkKey(link), link);
  }
  return { records, links: [...links.values()] };
}

/** The diff that undoes this one. */
export function reverseDiff(diff: RecordsDiff): RecordsDiff {
  const changed: RecordsDiff['changed'] = {};
  for (const id in diff.changed) {
    const { kind, fields } = diff.changed[id]!;
    changed[id] = { kind, fields: mapValues(fields, ({ before, after }) => ({ before: after, after: before })) };
  }
  return { created: diff.removed, changed, removed: diff.created, linked: diff.unlinked, unlinked: diff.linked };
}

/** One diff that does what the two do one after the other. */
export function squashDiffs(first: RecordsDiff, second: RecordsDiff): RecordsDiff {
  return squashAll([first, second]);
}

/** One diff that does what all of them do one after the other, in time that grows with what they hold. */
export function squashAll(diffs: Iterable<RecordsDiff>): RecordsDiff {
  const result = emptyDiff();
  const linked = new Map<string, Link>();
  const unlinked = new Map<string, Link>();
  for (const diff of diffs) {
    for (const id in diff.removed) squashRemoved(result, id, diff.removed[id]!);
    for (const id in diff.created) squashCreated(result, id, diff.created[id]!);
    for (const id in diff.changed) squashChanged(result, id, diff.changed[id]!);
    for (const link of diff.unlinked) if (!linked.delete(linkKey(link))) unlinked.set(linkKey(link), link);
    for (const link of diff.linked) if (!unlinked.delete(linkKey(link))) linked.set(linkKey(link), link);
  }
  return { ...result, linked: [...linked.values()], unlinked: [...unlinked.values()] };
}

/** Reads one diff apart into one diff a record; a link belongs to the record that it starts from. */
export function splitByRecord(diff: RecordsDiff): Map<string, RecordsDiff> {
  const parts = new Map<string, RecordsDiff>();
  const partOf = (id: string) => {
    let part = parts.get(id);
    if (!part) parts.set(id, (part = emptyDiff()));
    return part;
  };
  for (const id in diff.created) partOf(id).created[id] = diff.created[id]!;
  for (const id in diff.changed) partOf(id).changed[id] = diff.changed[id]!;
  for (const id in diff.removed) partOf(id).removed[id] = diff.removed[id]!;
  for (const link of diff.linked) partOf(link.from).linked.push(link);
  for (const link of diff.unlinked) partOf(link.from).unlinked.push(link);
  return parts;
}

/**
 * The part of a diff that still holds: fields whose value is what the diff made of it, records made that nobody changed,
 * records removed that are still gone, and links whose ends are there. Its reverse takes back what was done without
 * touching what was changed since.
 *
 * @param values The present values of a record, or `undefined` when it is gone.
 */
export function stillInForce(
  diff: RecordsDiff,
  values: (id: string) => FieldValues | undefined,
  isLinked: (link: Link) => boolean,
): RecordsDiff {
  const part = emptyDiff();
  for (const [id, { kind, fields }] of Object.entries(diff.changed)) {
    const now = values(id);
    const held = Object.entries(fields).filter(([field, { after }]) => now && sameValue(now[field], after));
    if (held.length) part.changed[id] = { kind, fields: Object.fromEntries(held) };
  }
  for (const [id, record] of Object.entries(diff.created)) {
    const now = values(id);
    if (now && sameValues(now, record.values)) part.created[id] = record;
  }
  for (const [id, record] of Object.entries(diff.removed)) if (!values(id)) part.removed[id] = record;
  const there = (id: string) => values(id) !== undefined || part.removed[id] !== undefined;
  part.linked = diff.linked.filter(isLinked);
  part.unlinked = diff.unlinked.filter((link) => !isLinked(link) && there(link.from) && there(link.to));
  return part;
}

function applyChange(id: string, change: RecordChange, values: FieldValues): FieldValues {
  const next = { ...values };
  for (const field in change.fields) {
    const { before, after } = change.fields[field]!;
    if (!sameValue(next[field], before)) throw new DiffMisfitError(id, field);
    if (after === null) delete next[field];
    else next[field] = after;
  }
  return next;
}

function squashRemoved(result: RecordsDiff, id: string, record: RecordState): void {
  if (result.created[id]) {
    delete result.created[id];
    return;
  }
  const change = result.changed[id];
  delete result.changed[id];
  result.removed[id] = change ? { ...record, values: valuesBefore(change, record.values) } : record;
}

function squashCreated(result: RecordsDiff, id: string, record: RecordState): void {
  const removed = result.removed[id];
  if (!removed) {
    result.created[id] = record;
    return;
  }
  delete result.removed[id];
  const fields = changesBetween(removed.values, record.values);
  if (Object.keys(fields).length) result.changed[id] = { kind: record.kind, fields };
}

function squashChanged(result: RecordsDiff, id: string, change: RecordChange): void {
  const created = result.created[id];
  if (created) {
    result.created[id] = { ...created, values: applyChange(id, change, created.values) };
    return;
  }
  const fields = { ...result.changed[id]?.fields };
  for (const field in change.fields) {
    const before = fields[field] ? fields[field].before : change.fields[field]!.before;
    const { after } = change.fields[field]!;
    if (sameValue(before, after)) delete fields[field];
    else fields[field] = { before, after };
  }
  if (Object.keys(fields).length) result.changed[id] = { kind: change.kind, fields };
  else delete result.changed[id];
}

/** The changes that lead from one set of values to another, field by field. */
export function changesBetween(before: FieldValues, after: FieldValues): Record<string, FieldChange> {
  const fields: Record<string, FieldChange> = {};
  for (const field of new Set([...Object.keys(before), ...Object.keys(after)])) {
    if (!sameValue(before[field], after[field]))
      fields[field] = { before: before[field] ?? null, after: after[field] ?? null };
  }
  return fields;
}

function valuesBefore(change: RecordChange, values: FieldValues): FieldValues {
  const back = mapValues(change.fields, ({ before, after }) => ({ before: after, after: before }));
  return applyChange('', { kind: change.kind, fields: back }, values);
}

function sameValues(a: FieldValues, b: FieldValues): boolean {
  return Object.keys(changesBetween(a, b)).length === 0;
}

function linkKey(link: Link): string {
  return `${link.from} ${link.to}`;
}

function indexLinks(links: readonly Link[]): Map<string, Link> {
  return new Map(links.map((link) => [linkKey(link), link]));
}

function mapValues<In, Out>(things: Record<string, In>, change: (thing: In) => Out): Record<string, Out> {
  return Object.fromEntries(Object.entries(things).map(([key, thing]) => [key, change(thing)]));
}
