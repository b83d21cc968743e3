import { Inject, Injectable } from '@nestjs/common';
import {
  countedRecords,
  emptyDiff,
  fieldOf,
  missingFields,
  planEdit,
  showRecordValue,
  type Destination,
  type FieldValues,
  type JsonValue,
  type KnownRecord,
  type PlannedEdit,
  type RecordEdit,
  type RecordKind,
} from '@haycart/core';
import type { DoneEdit, ProblemAt } from '@haycart/api';
import type { Caller } from '../../platform/auth/caller';
import type { WorkspaceTx } from '../../platform/database/database';
import { ProblemError, problemsAt } from '../../platform/errors/problem-error';
import { newId } from '../../platform/new-id';
import { DestinationService } from '../../destination/destination.service';
import { HeldRecords } from '../held-records.service';
import { RecordActs } from './record-acts.service';
import { recordName } from '../record-rows';

/** Records changed, made, deleted and linked by hand. */
@Injectable()
export class RecordEditsService {
  constructor(
    @Inject(HeldRecords) private readonly held: HeldRecords,
    @Inject(RecordActs) private readonly acts: RecordActs,
    @Inject(DestinationService) private readonly destinations: DestinationService,
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
    const records = await this.held.hold(tx, kind, ids);
    const diff = emptyDiff();
    for (const record of records) {
      const planned = planEdit(record, edit, destination);
      refuseProblems(planned, record, records.length);
      await this.#refuseConflicts(tx, planned, record, destination);
      if (Object.keys(planned.fields).length) diff.changed[record.id] = { kind, fields: planned.fields };
    }
    const named = Object.keys(edit.values ?? edit.add ?? edit.remove ?? {});
    const labels = named.map((key) => fieldOf(destination, kind, key)?.label ?? key).join(', ');
    const text = `Changed ${labels} of ${namesOf(kind, records, destination)}`;
    return this.acts.apply(tx, records, [], { diff, text, at, typed: true }, by);
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
    const others = await this.held.byAnyId(tx, more.links ?? []);
    const diff = emptyDiff();
    diff.created[id] = { kind, values: after };
    diff.linked = others.map((other) => ({ from: id, to: other.id }));
    const text = `Made ${recordName(kind, after)}`;
    return { ...(await this.acts.apply(tx, others, [], { diff, text, typed: true }, by)), id };
  }

  /** Deletes records with their links. Their notes, tasks and files wait for them, should they come back. */
  async remove(tx: WorkspaceTx, kind: RecordKind, ids: readonly string[], by: Caller['by']): Promise<DoneEdit> {
    const records = await this.held.hold(tx, kind, ids);
    const { links, others } = await this.held.around(tx, ids);
    const diff = emptyDiff();
    for (const { id, values } of records) diff.removed[id] = { kind, values };
    diff.unlinked = links;
    const text = `Deleted ${namesOf(kind, records, await this.destinations.load(tx))}`;
    return this.acts.apply(tx, [...records, ...others], links, { diff, text }, by);
  }

  /** Links a record to another, or undoes that. A company cannot stand above itself, however many are between. */
  async link(
    tx: WorkspaceTx,
    kind: RecordKind,
    id: string,
    change: { add?: readonly string[]; remove?: readonly string[] },
    by: Caller['by'],
  ): Promise<DoneEdit> {
    const [record] = await this.held.hold(tx, kind, [id]);
    const { links, others } = await this.held.around(tx, [id]);
    const added = await this.held.byAnyId(tx, change.add ?? []);
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
    return this.acts.apply(tx, [record!, ...others, ...added], links, { diff, text }, by);
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
       left join run_attempt r on r.workspace_id = c.workspace_id and r.id = c.cause_id left join route t on t.workspace_id = r.workspace_id and t.id = r.route_id
       where c.workspace_id = $1 and c.record_id = $2 order by c.at desc, c.id desc limit 1`,
      [tx.workspaceId, record.id],
    );
    const errors = conflicts.map(({ field, now }): ProblemAt => {
      const definition = fieldOf(destination, record.kind, field);
      const held = now === null ? 'blank' : `“${showRecordValue(destination, record.kind, field, now)}”`;
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
