import { Inject, Injectable } from '@nestjs/common';
import {
  fieldOf,
  fieldsOf,
  identityKeysOf,
  KnownRecords,
  planUnmerge,
  reverseDiff,
  showRecordValue,
  squashAll,
  uniqueFieldsOf,
  type Destination,
  type FieldValues,
  type KnownRecord,
  type Link,
  type Plan,
  type RecordKind,
  type RecordsDiff,
} from '@haycart/core';
import type { SinceMergeShape, UnmergeRehearsal } from '@haycart/api';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { isId } from '../platform/paging';
import { HeldRecords } from '../records/held-records.service';
import { RecordsService } from '../records/records.service';
import { DestinationService } from '../destination/destination.service';
import { LookAlikesStore } from './look-alikes.store';
import { PeopleService } from '../workspaces/people.service';
import { mergeShape, type MergeRow } from './merges.service';

/** Something that came since the merge, with all that it did to the record and its links. */
interface Since extends SinceMergeShape {
  kind: 'change' | 'activity';
  diff: RecordsDiff;
}

type FullMergeRow = MergeRow & { diff: RecordsDiff; cause_kind: 'run' | 'merge'; moved: Record<string, string[]> };

interface Prepared {
  row: FullMergeRow;
  survivor: KnownRecord;
  absorbed: KnownRecord;
  others: KnownRecord[];
  links: Link[];
  since: Since[];
  destination: Destination;
}

/** Takes merges apart again, at any later time: both records come back, and what came since goes where it belongs. */
@Injectable()
export class UnmergeService {
  constructor(
    @Inject(LookAlikesStore) private readonly pairs: LookAlikesStore,
    @Inject(HeldRecords) private readonly held: HeldRecords,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(Events) private readonly events: Events,
  ) {}

  /** What came since, to whom it would go, and what both records would be. */
  async rehearse(tx: WorkspaceTx, id: string, goes: Readonly<Record<string, string>>): Promise<UnmergeRehearsal> {
    const prepared = await this.#prepare(tx, id, goes);
    const { row, survivor, since, destination } = prepared;
    const after = afterwards(prepared, planned(prepared));
    const names = await this.records.named(tx, [survivor.id]);
    return {
      merge: mergeShape(row, names.get(survivor.id) ?? null),
      since: since.map(({ id: one, at, text, to }) => ({ id: one, at, text, to })),
      records: after.map(({ id: one, kind, values }) => ({
        id: one,
        number: one === survivor.id ? (names.get(one)?.number ?? 0) : Number(row.absorbed_number),
        name: one === survivor.id ? String(values.full_name ?? values.name ?? values.email ?? '') : row.absorbed_name,
        texts: textsOf(values, kind, destination),
      })),
    };
  }

  /**
   * Takes a merge apart.
   *
   * @param goes For what came since: the id of the record that it goes to, by its id.
   * @throws ProblemError 409 when it was taken apart already, 422 when it must be said to whom something goes.
   */
  async undo(
    tx: WorkspaceTx,
    id: string,
    goes: Readonly<Record<string, string>>,
    by: Caller['by'],
  ): Promise<{ survivor: string; absorbed: string }> {
    const prepared = await this.#prepare(tx, id, goes);
    const { row, survivor, absorbed, since, destination, links, others } = prepared;
    const open = since.filter(({ to }) => to === null);
    if (open.length)
      throw new ProblemError(
        'refused',
        'Say to which of the two goes what came since they were merged.',
        open.map((one) => ({ at: `/goes/${one.id}`, code: 'whose', message: one.text })),
      );
    const diff = planned(prepared);
    const known = new KnownRecords(
      [...afterwards(prepared, diff), ...others],
      afterLinks(links, diff),
      uniqueFieldsOf(destination.fields),
    );
    const at = new Date().toISOString();
    await this.records.write(tx, [{ diff, at, cause: { kind: 'take-back', id: row.cause_id } }], known);
    const name = await this.people.nameOf(tx, by);
    const toAbsorbed = since.filter(({ to }) => to === absorbed.id).map((one) => one.id);
    await this.records.moveSince(tx, toAbsorbed, survivor.id, absorbed.id);
    await this.records.mergeUndone(tx, row.id, name);
    await this.pairs.keepApart(tx, {
      kind: row.record_kind,
      record: survivor.id,
      from: [absorbed.id],
      ...(row.probability === null ? {} : { probability: row.probability }),
      by: name,
    });
    await this.events.tell(tx, 'records', 'decisions', 'pipelines');
    return { survivor: survivor.id, absorbed: absorbed.id };
  }

  async #prepare(tx: WorkspaceTx, id: string, goes: Readonly<Record<string, string>>): Promise<Prepared> {
    const [row] = isId(id)
      ? await tx.statement<FullMergeRow>(
          'merge_one',
          'select * from record_merge where workspace_id = $1 and id = $2 for update',
          [tx.workspaceId, id],
        )
      : [];
    if (!row) throw new ProblemError('not-found', 'There is no such merge.');
    if (row.undone_at) throw new ProblemError('conflict', 'This merge was taken apart already.');
    const destination = await this.destinations.load(tx);
    const kind = row.record_kind;
    const [survivor] = await this.held.byAnyIdThere(tx, [row.survivor_id]);
    if (!survivor)
      throw new ProblemError(
        'conflict',
        'The record that stayed is part of another by now, or deleted. Take that apart, or bring it back, first.',
      );
    const absorbed = await this.records.removed(tx, kind, row.absorbed_id);
    if (!absorbed) throw new ProblemError('conflict', 'The record that was merged is not kept any more.');
    const { links, others } = await this.held.around(tx, [survivor.id]);
    const ends = row.diff.unlinked.flatMap(({ from, to }) => [from, to]);
    const missing = ends.filter(
      (end) => end !== row.absorbed_id && end !== survivor.id && !others.some((one) => one.id === end),
    );
    const back = await this.held.byAnyIdThere(tx, [...new Set(missing)]);
    const there = new Set([...others, ...back, survivor, absorbed].map((record) => record.id));
    const diff = {
      ...row.diff,
      unlinked: row.diff.unlinked.filter(({ from, to }) => there.has(from) && there.has(to)),
    };
    const since = await this.#since(tx, { ...row, diff }, survivor, absorbed, links, destination);
    return {
      row: { ...row, diff },
      survivor,
      absorbed,
      others: [...others, ...back],
      links,
      since: since.map((one) => ({ ...one, to: toWhom(goes[one.id] ?? one.to, survivor, absorbed) })),
      destination,
    };
  }

  /** What came to the merged record since, with the owner that its key tells. */
  async #since(
    tx: WorkspaceTx,
    row: FullMergeRow,
    survivor: KnownRecord,
    absorbed: KnownRecord,
    links: readonly Link[],
    destination: Destination,
  ): Promise<Since[]> {
    const ends = links.flatMap(({ from, to }) => (to === survivor.id ? from : []));
    const rows = await tx.statement<ChangeRow>(
      'changes_since_merge',
      `select c.id, c.record_id, c.at, c.cause_kind, c.cause_id, c.diff, r.plan -> 'writes' as writes, coalesce(t.name, e.text, '') as label
       from record_change c
       left join run_attempt r on r.workspace_id = c.workspace_id and r.id = c.cause_id and c.cause_kind = 'run'
       left join route t on t.workspace_id = r.workspace_id and t.id = r.route_id
       left join record_edit e on e.workspace_id = c.workspace_id and e.id = c.cause_id and c.cause_kind <> 'run'
       where c.workspace_id = $1 and c.record_id = any($2::uuid[])
         and c.id >= (select f.id from record_change f where f.workspace_id = $1 and f.cause_id = $3 order by f.id limit 1)
       order by c.id`,
      [tx.workspaceId, [survivor.id, ...ends], row.cause_id],
    );
    const causes = new Map<string, ChangeRow[]>();
    for (const change of rows) {
      const concerns =
        change.record_id === survivor.id ||
        change.diff.linked.some(({ from, to }) => from === survivor.id || to === survivor.id);
      if (!concerns || (change.cause_id === row.cause_id && row.cause_kind === 'merge')) continue;
      causes.set(change.cause_id, [...(causes.get(change.cause_id) ?? []), change]);
    }
    const keys = keysOfBoth(row, absorbed, survivor, uniqueFieldsOf(destination.fields));
    const changes = [...causes].map(([cause, all]): Since => {
      const whole = squashAll(all.map(({ diff }) => diff));
      const diff = cause === row.cause_id ? squashAll([reverseDiff(row.diff), whole]) : whole;
      const [first] = all;
      return {
        id: cause,
        kind: 'change',
        at: new Date(first!.at).toISOString(),
        text: sinceText(first!, diff, survivor, destination),
        diff,
        to: ownerOf(first!, survivor.id, absorbed.id, keys),
      };
    });
    return [
      ...changes.filter(({ diff }) => doesSomething(diff, survivor.id)),
      ...(await this.#activities(tx, row, survivor.id)),
    ];
  }

  /** Notes, tasks and files that people added since: they stay unless somebody says otherwise. */
  async #activities(tx: WorkspaceTx, row: FullMergeRow, survivor: string): Promise<Since[]> {
    const rows = await tx.statement<{ id: string; at: Date; text: string }>(
      'activities_since_merge',
      `select id, at, 'Note: ' || left(text, 80) as text from note where workspace_id = $1 and record_id = $2 and at > $3
       union all select id, at, 'Task: ' || left(text, 80) from task where workspace_id = $1 and record_id = $2 and at > $3
       union all select id, at, 'File: ' || name from record_file where workspace_id = $1 and record_id = $2 and at > $3 order by at limit 500`,
      [tx.workspaceId, survivor, row.at],
    );
    const moved = new Set(Object.values(row.moved).flat());
    const none: RecordsDiff = { created: {}, changed: {}, removed: {}, linked: [], unlinked: [] };
    return rows
      .filter(({ id }) => !moved.has(id))
      .map(({ id, at, text }) => ({ id, at: at.toISOString(), text, kind: 'activity', diff: none, to: survivor }));
  }
}

interface ChangeRow extends Record<string, unknown> {
  id: string;
  record_id: string;
  at: Date;
  cause_kind: string;
  cause_id: string;
  diff: RecordsDiff;
  writes: Plan['writes'] | null;
  label: string;
}

function planned({ row, survivor, links, since }: Prepared): RecordsDiff {
  const assigned = since.flatMap(({ diff, to, kind }) => (to === null || kind === 'activity' ? [] : [{ diff, to }]));
  return planUnmerge({ survivor: survivor.id, diff: row.diff }, assigned, {
    record: { kind: survivor.kind, values: survivor.values },
    links,
  });
}

/** Both records as they are after the diff, with when their values were written. */
function afterwards({ survivor, absorbed }: Prepared, diff: RecordsDiff): KnownRecord[] {
  const values: FieldValues = { ...survivor.values };
  for (const [field, { after }] of Object.entries(diff.changed[survivor.id]?.fields ?? {})) {
    if (after === null) delete values[field];
    else values[field] = after;
  }
  return [
    { ...survivor, values },
    { ...absorbed, values: diff.created[absorbed.id]!.values },
  ];
}

function afterLinks(links: readonly Link[], diff: RecordsDiff): Link[] {
  const gone = new Set(diff.unlinked.map(({ from, to }) => `${from} ${to}`));
  return [...links.filter(({ from, to }) => !gone.has(`${from} ${to}`)), ...diff.linked];
}

/** The keys that each of the two had by itself, as text. */
function keysOfBoth(
  { diff }: FullMergeRow,
  absorbed: KnownRecord,
  survivor: KnownRecord,
  uniques: ReturnType<typeof uniqueFieldsOf>,
): { absorbed: Set<string>; survivor: Set<string> } {
  const before = { ...survivor.values };
  for (const [field, change] of Object.entries(diff.changed[survivor.id]?.fields ?? {})) {
    if (change.before === null) delete before[field];
    else before[field] = change.before;
  }
  const values = (record: KnownRecord, own: FieldValues) =>
    new Set(identityKeysOf(record.kind, own, uniques).map(({ value }) => value));
  return { absorbed: values(absorbed, absorbed.values), survivor: values(survivor, before) };
}

/** To whom a change belongs: a run to the one whose key it came with; what a person did is asked about. */
function ownerOf(
  change: ChangeRow,
  survivor: string,
  absorbed: string,
  keys: { absorbed: Set<string>; survivor: Set<string> },
): string | null {
  const key = change.writes?.find(({ id }) => id === survivor)?.match.key;
  if (!key) return null;
  const [ofAbsorbed, ofSurvivor] = [keys.absorbed.has(key), keys.survivor.has(key)];
  return ofAbsorbed === ofSurvivor ? null : ofAbsorbed ? absorbed : survivor;
}

function toWhom(to: string | null, survivor: KnownRecord, absorbed: KnownRecord): string | null {
  return to === survivor.id || to === absorbed.id ? to : null;
}

function doesSomething(diff: RecordsDiff, survivor: string): boolean {
  return (
    Object.keys(diff.changed[survivor]?.fields ?? {}).length > 0 ||
    diff.linked.some(({ from, to }) => from === survivor || to === survivor)
  );
}

function sinceText(
  { cause_kind: cause, label }: ChangeRow,
  diff: RecordsDiff,
  survivor: KnownRecord,
  destination: Destination,
): string {
  const who =
    cause === 'run' ? `A submission through ${label}` : label || (cause === 'merge' ? 'Another merge' : 'Somebody');
  const fields = Object.entries(diff.changed[survivor.id]?.fields ?? {}).slice(0, 4);
  const told = fields.map(([field, { after }]) => {
    const definition = fieldOf(destination, survivor.kind, field);
    return `${definition?.label ?? field} ${showRecordValue(destination, survivor.kind, field, after, survivor.values) || 'blank'}`;
  });
  const linked = diff.linked.filter(({ from, to }) => from === survivor.id || to === survivor.id).length;
  return [`${who}:`, [...told, ...(linked ? [`${linked} linked`] : [])].join(', ')].join(' ');
}

function textsOf(values: FieldValues, kind: RecordKind, destination: Destination): { label: string; text: string }[] {
  return fieldsOf(destination, kind).flatMap((field) => {
    const text = showRecordValue(destination, kind, field.key, values[field.key] ?? null, values);
    return text ? [{ label: field.label, text }] : [];
  });
}
