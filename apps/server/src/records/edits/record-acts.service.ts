import { Inject, Injectable } from '@nestjs/common';
import {
  isEmptyDiff,
  KnownRecords,
  reverseDiff,
  squashAll,
  stillInForce,
  uniqueFieldsOf,
  withoutMisfits,
  type KnownRecord,
  type Link,
  type RecordsDiff,
} from '@haycart/core';
import type { DoneEdit } from '@haycart/api';
import { and, desc, eq } from 'drizzle-orm';
import type { Caller } from '../../platform/auth/caller';
import type { WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { Events } from '../../platform/events/events';
import { newId } from '../../platform/new-id';
import { isId } from '../../platform/paging';
import { DestinationService } from '../../destination/destination.service';
import { PeopleService } from '../../workspaces/people.service';
import type { CausedDiff } from '../history/caused-diff';
import { AssignmentsService } from '../assignments/assignments.service';
import { HeldRecords } from '../held-records.service';
import { KnownRecordsStore } from '../known-records.store';
import { RecordWriter } from '../record-writer';
import { refuseTakenKeys } from '../recognised/taken-keys';
import { recordEdit } from '../history/tables';

/** What an act does to records, in a sentence, and since when. */
export interface Act {
  diff: RecordsDiff;
  text: string;
  /** Now, when it is not given. */
  at?: string | undefined;
  /** Since when its values count against those of submissions; the time of the act, when it is not given. */
  countsFrom?: string | undefined;
  /** Whether the values were typed by the person, rather than follow from something else. */
  typed?: boolean;
  /** Whether it does something beside records too, so that it counts even where none of them changes. */
  doesMore?: boolean;
}

/** The acts of people on records: each is one diff with one cause, is listed, and can be taken back. */
@Injectable()
export class RecordActs {
  readonly #guards: ((tx: WorkspaceTx, edit: string) => Promise<void>)[] = [];
  readonly #listeners: ((tx: WorkspaceTx, edit: string) => Promise<void>)[] = [];

  constructor(
    @Inject(KnownRecordsStore) private readonly known: KnownRecordsStore,
    @Inject(HeldRecords) private readonly held: HeldRecords,
    @Inject(RecordWriter) private readonly writer: RecordWriter,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(AssignmentsService) private readonly assignments: AssignmentsService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(Events) private readonly events: Events,
  ) {}

  /** Has something else looked at before an act is taken back. It throws a ProblemError where that cannot be. */
  beforeTakenBack(guard: (tx: WorkspaceTx, edit: string) => Promise<void>): void {
    this.#guards.push(guard);
  }

  /** Has something else done, in the same transaction, when an act is taken back. */
  whenTakenBack(listener: (tx: WorkspaceTx, edit: string) => Promise<void>): void {
    this.#listeners.push(listener);
  }

  /** Writes what was planned, such as the qualifying of a lead, as one act of a person. */
  async apply(
    tx: WorkspaceTx,
    records: readonly KnownRecord[],
    links: readonly Link[],
    act: Act,
    by: Caller['by'],
  ): Promise<DoneEdit> {
    const [done] = await this.applyEach(tx, records, links, [act], by);
    return done!;
  }

  /** Writes several acts of one person, one after the other, in a few statements; each can be taken back by itself. */
  async applyEach(
    tx: WorkspaceTx,
    records: readonly KnownRecord[],
    links: readonly Link[],
    acts: readonly Act[],
    by: Caller['by'],
  ): Promise<DoneEdit[]> {
    const now = new Date().toISOString();
    const name = await this.people.nameOf(tx, by);
    const edits = acts.map(({ diff, text, at = now, countsFrom, typed = false, doesMore = false }) => ({
      id: isEmptyDiff(diff) && !doesMore ? null : newId(),
      diff,
      text,
      at,
      countsFrom,
      typed,
    }));
    const done = edits.flatMap(({ id, ...act }) => (id === null ? [] : [{ id, ...act }]));
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
      const caused = done.map(({ id, diff, at, countsFrom, typed }): CausedDiff => ({
        diff,
        at,
        countsFrom,
        typed,
        cause: { kind: 'person', id },
      }));
      await this.#write(tx, records, links, caused);
      if (by.kind === 'person') await this.#touch(tx, done, name);
    }
    return edits.map(({ id, diff, text }) => ({
      edit: id,
      records: Object.keys({ ...diff.changed, ...diff.created, ...diff.removed }).length,
      text: id === null ? 'Nothing changed' : text,
    }));
  }

  /** Takes back what an act did and nobody changed since. */
  async takeBack(tx: WorkspaceTx, editId: string, by: Caller['by']): Promise<DoneEdit & { left: number }> {
    const mine = and(eq(recordEdit.workspaceId, tx.workspaceId), eq(recordEdit.id, editId));
    const [edit] = isId(editId) ? await tx.db.select().from(recordEdit).where(mine).for('update') : [];
    if (!edit) throw new ProblemError('not-found', 'There is no such change.');
    if (edit.takenBackAt) throw new ProblemError('conflict', 'This was taken back already.');
    for (const guard of this.#guards) await guard(tx, editId);
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
    const records = await this.held.byAnyIdThere(tx, ids);
    const values = new Map(records.map((record) => [record.id, record.values]));
    const { links } = await this.held.around(tx, [...values.keys()]);
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
    for (const listener of this.#listeners) await listener(tx, editId);
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

  /** What somebody did something about is answered; all at once, but for acts that are given other times. */
  async #touch(tx: WorkspaceTx, acts: readonly { diff: RecordsDiff; at: string }[], by: string): Promise<void> {
    for (const at of new Set(acts.map((act) => act.at))) {
      const own = acts.filter((act) => act.at === at).flatMap(({ diff }) => touchedBy(diff));
      await this.assignments.touched(tx, own, by, new Date(at));
    }
  }

  async #write(
    tx: WorkspaceTx,
    records: readonly KnownRecord[],
    links: readonly Link[],
    diffs: readonly CausedDiff[],
  ): Promise<void> {
    const { fields } = await this.destinations.load(tx);
    const known = new KnownRecords(records, links, uniqueFieldsOf(fields));
    for (const { diff, at, countsFrom = at, typed } of diffs) known.learn(diff, countsFrom, typed);
    await refuseTakenKeys(tx, this.known, squashAll(diffs.map(({ diff }) => diff)), known);
    await this.writer.write(tx, diffs, known);
    await this.events.tell(tx, 'records', 'pipelines');
  }
}

/** The records about which an act does more than give them to somebody else. */
function touchedBy({ changed, linked }: RecordsDiff): string[] {
  const ids = Object.entries(changed).flatMap(([id, { fields }]) =>
    Object.keys(fields).some((field) => field !== 'owner') ? [id] : [],
  );
  return [...new Set([...ids, ...linked.flatMap(({ from, to }) => [from, to])])];
}
