import { Inject, Injectable } from '@nestjs/common';
import {
  countedRecords,
  emptyDiff,
  identityKeysOf,
  isEmptyDiff,
  isExclusive,
  KnownRecords,
  missingFields,
  planEdit,
  reverseDiff,
  showFieldValue,
  fieldOf,
  squashAll,
  stillInForce,
  uniqueFieldsOf,
  withoutMisfits,
  type Destination,
  type FieldValues,
  type IdentityKey,
  type JsonValue,
  type KnownRecord,
  type Link,
  type PlannedEdit,
  type RecordEdit,
  type RecordKind,
  type RecordsDiff,
} from '@haycart/core';
import type { DoneEdit } from '@haycart/api';
import { and, desc, eq } from 'drizzle-orm';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { newId } from '../platform/new-id';
import { isId } from '../platform/paging';
import { DestinationService } from '../workspaces/destination.service';
import { PeopleService } from '../workspaces/people.service';
import { KnownRecordsStore } from './known-records.store';
import type { CausedDiff } from './caused-diff';
import { RecordWriter } from './record-writer';
import { recordName } from './record-rows';
import { recordEdit } from './tables';

/** Everything that people do to records by hand: each act is one diff with one cause, and can be taken back. */
@Injectable()
export class RecordEditsService {
  constructor(
    @Inject(KnownRecordsStore) private readonly known: KnownRecordsStore,
    @Inject(RecordWriter) private readonly writer: RecordWriter,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(Events) private readonly events: Events,
  ) {}

  /**
   * Changes records, all of them or none.
   *
   * @throws ProblemError 422 for a value that does not fit, 409 when somebody changed a field meanwhile or another
   *   record has an e-mail, domain or unique value already.
   */
  async change(
    tx: WorkspaceTx,
    kind: RecordKind,
    ids: readonly string[],
    edit: RecordEdit,
    destination: Destination,
    by: Caller['by'],
    at?: string,
  ): Promise<DoneEdit> {
    const records = await this.#hold(tx, kind, ids);
    const diff = emptyDiff();
    for (const record of records) {
      const planned = planEdit(record, edit, destination);
      refuseProblems(planned, record, records.length);
      await this.#refuseConflicts(tx, planned, record, destination);
      if (Object.keys(planned.fields).length) diff.changed[record.id] = { kind, fields: planned.fields };
    }
    const named = Object.keys(edit.values ?? edit.add ?? edit.remove ?? {});
    const labels = named.map((key) => fieldOf(destination, kind, key)?.label ?? key).join(', ');
    return this.#do(tx, records, [], diff, `Changed ${labels} of ${namesOf(kind, records, destination)}`, by, at);
  }

  /** Makes a record by hand, linked to others. */
  async create(
    tx: WorkspaceTx,
    kind: RecordKind,
    values: Record<string, JsonValue>,
    more: { placed?: FieldValues; links?: readonly string[] },
    destination: Destination,
    by: Caller['by'],
  ): Promise<DoneEdit & { id: string }> {
    const id = newId();
    const planned = planEdit({ kind, values: {} }, { values }, destination);
    const after: FieldValues = { ...more.placed };
    for (const [field, change] of Object.entries(planned.fields))
      if (change.after !== null) after[field] = change.after;
    const problems = planned.problems.length ? planned.problems : missingFields(kind, after, destination);
    if (problems.length) throw new ProblemError('refused', problems[0]!.text, problemsAt(problems));
    const others = await this.#byAnyId(tx, more.links ?? []);
    const diff = emptyDiff();
    diff.created[id] = { kind, values: after };
    diff.linked = others.map((other) => ({ from: id, to: other.id }));
    return { ...(await this.#do(tx, others, [], diff, `Made ${recordName(kind, after)}`, by)), id };
  }

  /** Deletes records with their links. Their notes, tasks and files wait for them, should they come back. */
  async remove(tx: WorkspaceTx, kind: RecordKind, ids: readonly string[], by: Caller['by']): Promise<DoneEdit> {
    const records = await this.#hold(tx, kind, ids);
    const { links, others } = await this.#around(tx, ids);
    const diff = emptyDiff();
    for (const { id, values } of records) diff.removed[id] = { kind, values };
    diff.unlinked = links;
    const names = namesOf(kind, records, await this.destinations.load(tx));
    return this.#do(tx, [...records, ...others], links, diff, `Deleted ${names}`, by);
  }

  /** Links a record to another, or undoes that. A company cannot stand above itself, however many are between. */
  async link(
    tx: WorkspaceTx,
    kind: RecordKind,
    id: string,
    change: { add?: readonly string[]; remove?: readonly string[] },
    by: Caller['by'],
  ): Promise<DoneEdit> {
    const [record] = await this.#hold(tx, kind, [id]);
    const { links, others } = await this.#around(tx, [id]);
    const added = await this.#byAnyId(tx, change.add ?? []);
    for (const other of added) {
      if (kind === 'company' && other.kind === 'company') await this.#refuseCircle(tx, id, other.id);
      if (other.id === id) throw new ProblemError('conflict', 'A record cannot be linked to itself.');
    }
    const between = (other: string) =>
      links.filter(({ from, to }) => (from === id && to === other) || (to === id && from === other));
    const diff = emptyDiff();
    diff.linked = added.filter((other) => !between(other.id).length).map((other) => ({ from: id, to: other.id }));
    diff.unlinked = (change.remove ?? []).flatMap(between);
    // A company has one company above it: another takes its place.
    const above =
      kind === 'company'
        ? links.filter(({ from, to }) => from === id && others.some((o) => o.id === to && o.kind === 'company'))
        : [];
    if (added.some((other) => other.kind === 'company') && diff.linked.length) diff.unlinked.push(...above);
    const text = `${diff.linked.length ? 'Linked' : 'Unlinked'} ${recordName(kind, record!.values)}`;
    return this.#do(tx, [record!, ...others, ...added], links, diff, text, by);
  }

  /** Writes what was planned elsewhere, such as the qualifying of a lead, as one act of a person. */
  async apply(
    tx: WorkspaceTx,
    records: readonly KnownRecord[],
    links: readonly Link[],
    diff: RecordsDiff,
    text: string,
    by: Caller['by'],
    at?: string,
  ): Promise<DoneEdit> {
    return this.#do(tx, records, links, diff, text, by, at);
  }

  /** Takes back what an act did and nobody changed since. */
  async takeBack(tx: WorkspaceTx, editId: string, by: Caller['by']): Promise<DoneEdit & { left: number }> {
    const mine = and(eq(recordEdit.workspaceId, tx.workspaceId), eq(recordEdit.id, editId));
    const [edit] = isId(editId) ? await tx.db.select().from(recordEdit).where(mine).for('update') : [];
    if (!edit) throw new ProblemError('not-found', 'There is no such change.');
    if (edit.takenBackAt) throw new ProblemError('conflict', 'This was taken back already.');
    const rows = await tx.statement<{ diff: RecordsDiff }>(
      'diff_of',
      'select diff from record_change where workspace_id = $1 and cause_id = $2 order by id',
      [tx.workspaceId, editId],
    );
    const done = squashAll(rows.map(({ diff }) => diff));
    const ids = [
      ...new Set([
        ...Object.keys(done.changed),
        ...Object.keys(done.created),
        ...[...done.linked, ...done.unlinked].flatMap(({ from, to }) => [from, to]),
      ]),
    ];
    const records = await this.#byAnyIdThere(tx, ids);
    const values = new Map(records.map((record) => [record.id, record.values]));
    const { links } = await this.#around(tx, [...values.keys()]);
    const isLinked = (link: Link) => links.some(({ from, to }) => from === link.from && to === link.to);
    const held = withoutMisfits(
      stillInForce(done, (id) => values.get(id), isLinked),
      await this.destinations.load(tx),
    );
    // Whatever was linked to a record since goes with it.
    const gone = new Set(Object.keys(held.created));
    held.linked.push(
      ...links.filter(
        ({ from, to }) =>
          (gone.has(from) || gone.has(to)) && !held.linked.some((link) => link.from === from && link.to === to),
      ),
    );
    const back = reverseDiff(held);
    const cause = { kind: 'take-back', id: editId } as const;
    await this.#write(tx, records, links, [{ diff: back, at: new Date().toISOString(), cause }]);
    await tx.db
      .update(recordEdit)
      .set({ takenBackAt: new Date(), takenBackBy: await this.people.nameOf(tx, by) })
      .where(mine);
    const touched = (diff: RecordsDiff) =>
      Object.values(diff.changed).reduce((sum, { fields }) => sum + Object.keys(fields).length, 0) +
      Object.keys(diff.created).length +
      Object.keys(diff.removed).length;
    return {
      edit: editId,
      records: Object.keys({ ...back.changed, ...back.created, ...back.removed }).length,
      text: `Took back: ${edit.text}`,
      left: touched(done) - touched(held),
    };
  }

  /** The latest acts, for whoever wants one of them back. */
  async latest(tx: WorkspaceTx, limit: number) {
    const rows = await tx.db
      .select()
      .from(recordEdit)
      .where(eq(recordEdit.workspaceId, tx.workspaceId))
      .orderBy(desc(recordEdit.at))
      .limit(limit);
    return rows.map(({ id, at, by, text, takenBackAt }) => ({
      id,
      at: at.toISOString(),
      by,
      text,
      takenBackAt: takenBackAt?.toISOString() ?? null,
    }));
  }

  async #do(
    tx: WorkspaceTx,
    records: readonly KnownRecord[],
    links: readonly Link[],
    diff: RecordsDiff,
    text: string,
    by: Caller['by'],
    at = new Date().toISOString(),
  ): Promise<DoneEdit> {
    const [done] = await this.applyEach(tx, records, links, [{ diff, text, at }], by);
    return done!;
  }

  /** Writes several acts of one person, one after the other, in a few statements; each can be taken back by itself. */
  async applyEach(
    tx: WorkspaceTx,
    records: readonly KnownRecord[],
    links: readonly Link[],
    acts: readonly { diff: RecordsDiff; text: string; at: string }[],
    by: Caller['by'],
  ): Promise<DoneEdit[]> {
    const name = await this.people.nameOf(tx, by);
    const edits = acts.map(({ diff, text, at }) => ({ id: isEmptyDiff(diff) ? null : newId(), diff, text, at }));
    const done = edits.flatMap(({ id, diff, text, at }) => (id === null ? [] : [{ id, diff, text, at }]));
    if (done.length) {
      await tx.db.insert(recordEdit).values(
        done.map(({ id, text, at }) => ({
          workspaceId: tx.workspaceId,
          id,
          personId: by.kind === 'person' ? by.id : null,
          by: name,
          text,
          at: new Date(at),
        })),
      );
      const caused = done.map(({ id, diff, at }): CausedDiff => ({ diff, at, cause: { kind: 'person', id } }));
      await this.#write(tx, records, links, caused);
    }
    return edits.map(({ id, diff, text }) => ({
      edit: id,
      records: Object.keys({ ...diff.changed, ...diff.created, ...diff.removed }).length,
      text: id === null ? 'Nothing changed' : text,
    }));
  }

  async #write(
    tx: WorkspaceTx,
    records: readonly KnownRecord[],
    links: readonly Link[],
    diffs: readonly CausedDiff[],
  ): Promise<void> {
    const { fields } = await this.destinations.load(tx);
    const known = new KnownRecords(records, links, uniqueFieldsOf(fields));
    for (const { diff, at } of diffs) known.learn(diff, at);
    await this.#refuseTakenKeys(tx, squashAll(diffs.map(({ diff }) => diff)), known);
    await this.writer.write(tx, diffs, known);
    await this.events.tell(tx, 'records', 'pipelines');
  }

  async #hold(tx: WorkspaceTx, kind: RecordKind, ids: readonly string[]): Promise<KnownRecord[]> {
    const wanted = [...new Set(ids)];
    const found = wanted.every(isId) ? await this.known.byId(tx, kind, wanted, 'lock') : [];
    if (found.length < wanted.length)
      throw new ProblemError(
        'not-found',
        wanted.length === 1
          ? `There is no such ${kind}.`
          : 'Some of these records are not there any more. Look at the list again.',
      );
    return found;
  }

  async #byAnyId(tx: WorkspaceTx, ids: readonly string[]): Promise<KnownRecord[]> {
    const found = ids.every(isId) ? await this.#byAnyIdThere(tx, ids) : [];
    if (found.length < new Set(ids).size)
      throw new ProblemError('refused', 'A record to link to is not there.', [
        { at: '/links', code: 'unknown-record', message: 'Name records by their ids.' },
      ]);
    return found;
  }

  async #byAnyIdThere(tx: WorkspaceTx, ids: readonly string[]): Promise<KnownRecord[]> {
    if (!ids.length) return [];
    const found: KnownRecord[] = [];
    for (const kind of ['contact', 'company', 'lead', 'deal'] as const)
      found.push(...(await this.known.byId(tx, kind, ids, 'lock')));
    return found;
  }

  /** The links of records, and the records at their other ends. */
  async #around(tx: WorkspaceTx, ids: readonly string[]): Promise<{ links: Link[]; others: KnownRecord[] }> {
    const links = await this.known.linksOf(tx, ids);
    const own = new Set(ids);
    const others = new Set(links.flatMap(({ from, to }) => [from, to]).filter((id) => !own.has(id)));
    return { links, others: await this.#byAnyIdThere(tx, [...others]) };
  }

  async #refuseCircle(tx: WorkspaceTx, id: string, above: string): Promise<void> {
    const [circle] = await tx.statement<{ id: string }>(
      'companies_above',
      `with recursive above (id) as (
         select $3::uuid union select l.to_id from above a join record_link l on l.workspace_id = $1 and l.from_id = a.id and l.to_kind = 'company' and l.from_kind = 'company')
       select id from above where id = $2`,
      [tx.workspaceId, id, above],
    );
    if (circle)
      throw new ProblemError('conflict', 'A company cannot stand above itself: that one belongs to this one already.');
  }

  async #refuseConflicts(
    tx: WorkspaceTx,
    { conflicts }: PlannedEdit,
    record: KnownRecord,
    destination: Destination,
  ): Promise<void> {
    if (!conflicts.length) return;
    const [last] = await tx.statement<{ by: string | null }>(
      'last_change_by',
      `select coalesce(e.by, t.name) as by from record_change c
       left join record_edit e on e.workspace_id = c.workspace_id and e.id = c.cause_id
       left join run r on r.workspace_id = c.workspace_id and r.id = c.cause_id left join route t on t.workspace_id = r.workspace_id and t.id = r.route_id
       where c.workspace_id = $1 and c.record_id = $2 order by c.at desc, c.id desc limit 1`,
      [tx.workspaceId, record.id],
    );
    const errors = conflicts.map(({ field, now }) => {
      const definition = fieldOf(destination, record.kind, field);
      const held = now === null ? 'blank' : `“${showFieldValue(definition, now)}”`;
      return {
        at: `/values/${field}`,
        code: 'changed-meanwhile',
        message: `${definition?.label ?? field} is ${held} by now.`,
      };
    });
    const who = last?.by ? `${last.by} changed this` : 'This was changed';
    throw new ProblemError(
      'changed-meanwhile',
      `${who} while you were at it. ${errors[0]!.message} Look again, then decide.`,
      errors,
    );
  }

  /** E-mails, domains and unique values belong to one record; the one who has it is named. */
  async #refuseTakenKeys(tx: WorkspaceTx, diff: RecordsDiff, known: KnownRecords): Promise<void> {
    const touched = [...Object.keys(diff.changed), ...Object.keys(diff.created)].map((id) => known.get(id)!);
    const keys: (IdentityKey & { id: string })[] = touched
      .flatMap(({ id, kind, values }) => identityKeysOf(kind, values, known.uniques).map((key) => ({ ...key, id })))
      .filter(isExclusive);
    const twice = keys.find((key) =>
      keys.some(
        (other) =>
          other.id !== key.id && other.kind === key.kind && other.value === key.value && other.record === key.record,
      ),
    );
    if (twice) throw takenError(twice, 'two of these records');
    await this.known.lock(tx, keys);
    const owners = await this.known.owners(tx, keys);
    const taken = keys.find((key) =>
      owners.some(
        (owner) =>
          owner.record_kind === key.record &&
          owner.key_kind === key.kind &&
          owner.value === key.value &&
          owner.record_id !== key.id,
      ),
    );
    if (taken) {
      const owner = owners.find(({ value, key_kind: kind }) => value === taken.value && kind === taken.kind)!;
      const [other] = await this.known.byId(tx, taken.record, [owner.record_id], 'look');
      throw takenError(taken, other ? recordName(taken.record, other.values) : 'another record');
    }
  }
}

function takenError({ record, kind, value }: IdentityKey, who: string): ProblemError {
  return new ProblemError('conflict', `${value} belongs to ${who} already, and only one ${record} may have it.`, [
    { at: `/values/${kind.replace(/^field:/, '')}`, code: 'identity-taken', message: `Another ${record} has it.` },
  ]);
}

function refuseProblems({ problems }: PlannedEdit, record: KnownRecord, among: number): void {
  if (!problems.length) return;
  const where = among > 1 ? ` (${recordName(record.kind, record.values)}; nothing was changed)` : '';
  throw new ProblemError('refused', `${problems[0]!.text}${where}`, problemsAt(problems));
}

function namesOf(kind: RecordKind, records: readonly KnownRecord[], destination: Destination): string {
  const [only] = records;
  return records.length === 1 ? recordName(kind, only!.values) : countedRecords(destination, records.length, kind);
}
