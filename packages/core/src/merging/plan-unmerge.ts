import { sameValue, type FieldValue, type FieldValues, type Link, type RecordState } from '../diff/record';
import { changesBetween, emptyDiff, type RecordsDiff } from '../diff/records-diff';

/** A merge as it was done. */
export interface DoneMerge {
  survivor: string;
  diff: RecordsDiff;
}

/** Something that happened to the merged record since, and to whom it belongs. */
export interface SinceMerge {
  diff: RecordsDiff;
  /** The id of the record that it goes to: the survivor, or one that it absorbed. */
  to: string;
}

/** The merged record as it is now. */
export interface MergedNow {
  record: RecordState;
  /** Its links. */
  links: readonly Link[];
}

/**
 * What takes a merge apart: the absorbed records come back as they were, the survivor goes back to what it was, and what
 * happened since is done again to the record that it belongs to. With nothing since, it is the reverse of the merge.
 */
export function planUnmerge(merge: DoneMerge, since: readonly SinceMerge[], now: MergedNow): RecordsDiff {
  const absorbed = Object.entries(merge.diff.removed);
  const states = new Map<string, FieldValues>(absorbed.map(([id, { values }]) => [id, { ...values }]));
  states.set(merge.survivor, valuesBefore(merge, now.record.values, since));

  const links = new Map(now.links.map((link) => [linkText(link), link]));
  const wanted = new Map(links);
  for (const link of merge.diff.linked) wanted.delete(linkText(link));
  for (const link of merge.diff.unlinked) wanted.set(linkText(link), link);
  for (const { diff, to } of since) {
    const values = states.get(to);
    const change = diff.changed[merge.survivor];
    if (values && change)
      for (const [field, { before, after }] of Object.entries(change.fields)) setValue(values, field, before, after);
    for (const link of diff.linked) {
      const own = movedTo(link, merge.survivor, to);
      if (!own || !wanted.has(linkText(link))) continue;
      wanted.delete(linkText(link));
      wanted.set(linkText(own), own);
    }
  }

  const diff = emptyDiff();
  const changes = changesBetween(now.record.values, states.get(merge.survivor)!);
  if (Object.keys(changes).length) diff.changed[merge.survivor] = { kind: now.record.kind, fields: changes };
  for (const [id, { kind }] of absorbed) diff.created[id] = { kind, values: states.get(id)! };
  diff.unlinked = [...links.values()].filter((link) => !wanted.has(linkText(link)));
  diff.linked = [...wanted.values()].filter((link) => !links.has(linkText(link)));
  return diff;
}

/** The survivor before the merge; fields that the merge did not touch, and nothing since did, are as they are now. */
function valuesBefore(merge: DoneMerge, now: FieldValues, since: readonly SinceMerge[]): FieldValues {
  const values = { ...now };
  // Undone in turn, the latest first; it is done again afterwards to whom it belongs.
  const changes = since.flatMap(({ diff }) => Object.entries(diff.changed[merge.survivor]?.fields ?? {}));
  for (const [field, { before, after }] of changes.reverse()) setValue(values, field, after, before);
  for (const [field, { before, after }] of Object.entries(merge.diff.changed[merge.survivor]?.fields ?? {}))
    setValue(values, field, after, before);
  return values;
}

/** Sets a field as a change did; of lists, what was added is added and what was taken out is taken out. */
function setValue(values: FieldValues, field: string, before: FieldValue | null, after: FieldValue | null): void {
  const now = values[field] ?? null;
  const list = (value: FieldValue | null) => (Array.isArray(value) ? value : value === null ? [] : null);
  const [held, had, has] = [list(now), list(before), list(after)];
  if (sameValue(now, before) || !held || !had || !has || (Array.isArray(before) || Array.isArray(after)) === false) {
    if (after === null) delete values[field];
    else values[field] = after;
    return;
  }
  const next = [
    ...held.filter((one) => !had.includes(one) || has.includes(one)),
    ...has.filter((one) => !had.includes(one) && !held.includes(one)),
  ];
  if (next.length) values[field] = next;
  else delete values[field];
}

function movedTo(link: Link, survivor: string, to: string): Link | null {
  if (to === survivor) return null;
  if (link.from === survivor) return { from: to, to: link.to };
  if (link.to === survivor) return { from: link.from, to };
  return null;
}

function linkText({ from, to }: Link): string {
  return `${from} ${to}`;
}
