import { sameValue, type FieldValue, type FieldValues, type Link, type RecordKind } from './record';
import { changesBetween, emptyDiff, reverseDiff, squashAll, type RecordsDiff } from './records-diff';

/** What is as it is since somebody or something else touched it after the run. */
export interface LeftAlone {
  record: string;
  kind: RecordKind;
  /** `null`: the record as a whole, which the run made. */
  field: string | null;
  now: FieldValue | null;
  /** `changed`: another value came since. `in-use`: others work with the record. `gone`: it was deleted. */
  why: 'changed' | 'in-use' | 'gone';
}

/** The records and links as they are now, as far as the runs touched them. */
export interface PresentRecords {
  values(id: string): FieldValues | undefined;
  links: readonly Link[];
  /** Whether anything but the runs touched a record: another run, a person, a note, a link. */
  inUse(id: string): boolean;
}

export interface PlannedTakeBack {
  /** What undoes the runs, as one diff. */
  diff: RecordsDiff;
  left: LeftAlone[];
}

/**
 * How to take back what runs did, field by field, each upon the one that came after it: a value goes back where it still
 * is what the run made of it, a record is removed where nothing else touched it, and everything else stays as it is and is
 * told.
 *
 * @param diffs What the runs did, the latest first.
 */
export function planTakeBack(diffs: readonly RecordsDiff[], present: PresentRecords): PlannedTakeBack {
  const now = new Map<string, FieldValues | undefined>();
  const valuesOf = (id: string) => (now.has(id) ? now.get(id) : present.values(id));
  const links = new Map(present.links.map((link) => [linkKey(link), link]));
  const left: LeftAlone[] = [];
  const steps: RecordsDiff[] = [];
  for (const diff of diffs) {
    const held = emptyDiff();
    for (const [id, { kind, fields }] of Object.entries(diff.changed)) {
      const values = valuesOf(id);
      if (!values) {
        left.push({ record: id, kind, field: null, now: null, why: 'gone' });
        continue;
      }
      const own = Object.entries(fields).filter(([field, { after }]) => sameValue(values[field], after));
      for (const [field, { after }] of Object.entries(fields))
        if (!sameValue(values[field], after))
          left.push({ record: id, kind, field, now: values[field] ?? null, why: 'changed' });
      if (!own.length) continue;
      held.changed[id] = { kind, fields: Object.fromEntries(own) };
      now.set(
        id,
        withValues(
          values,
          own.map(([field, { before }]) => [field, before]),
        ),
      );
    }
    for (const [id, made] of Object.entries(diff.created)) {
      const values = valuesOf(id);
      const why = !values
        ? 'gone'
        : present.inUse(id)
          ? 'in-use'
          : Object.keys(changesBetween(values, made.values)).length
            ? 'changed'
            : null;
      if (why) left.push({ record: id, kind: made.kind, field: null, now: null, why });
      else {
        held.created[id] = made;
        now.set(id, undefined);
      }
    }
    held.linked = diff.linked.filter((link) => links.delete(linkKey(link)));
    // A record that goes takes every link with it.
    for (const [key, link] of links)
      if (held.created[link.from] || held.created[link.to]) {
        held.linked.push(link);
        links.delete(key);
      }
    held.unlinked = diff.unlinked.filter(
      (link) => !links.has(linkKey(link)) && valuesOf(link.from) !== undefined && valuesOf(link.to) !== undefined,
    );
    for (const link of held.unlinked) links.set(linkKey(link), link);
    steps.push(reverseDiff(held));
  }
  return { diff: squashAll(steps), left };
}

function withValues(values: FieldValues, changes: readonly (readonly [string, FieldValue | null])[]): FieldValues {
  const next = { ...values };
  for (const [field, value] of changes) {
    if (value === null) delete next[field];
    else next[field] = value;
  }
  return next;
}

function linkKey({ from, to }: Link): string {
  return `${from} ${to}`;
}
