import { Inject, Injectable } from '@nestjs/common';
import {
  countedRecords,
  defaultStageOf,
  emptyDiff,
  pipelineOf,
  RECORD_KINDS,
  stageOf,
  stageValues,
  withoutMisfits,
  type Destination,
  type KnownRecord,
  type Link,
  type RecordKind,
} from '@haycart/core';
import type { DeletedRecord, DoneEdit, Page } from '@haycart/api';
import type { Caller } from '../../platform/auth/caller';
import type { WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { cursorTime, isId, pageOf, type Cursor } from '../../platform/paging';
import { DestinationService } from '../../destination/destination.service';
import { HeldRecords } from '../held-records.service';
import { RecordActs } from '../edits/record-acts.service';
import { columnsToValues, knownRecord, recordName, valuesToColumns, type RecordRow } from '../record-rows';

interface BinRow extends Record<string, unknown> {
  id: string;
  kind: RecordKind;
  row: Record<string, unknown>;
  cursor: string;
  at: Date;
  by: string;
  edit: string;
}

/** Records that people deleted. They are kept whole, for ever, and come back with their numbers and links. */
@Injectable()
export class RecordsBin {
  constructor(
    @Inject(HeldRecords) private readonly held: HeldRecords,
    @Inject(RecordActs) private readonly acts: RecordActs,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  /** What was deleted last stands first. */
  async list(tx: WorkspaceTx, kind: RecordKind, after: Cursor | null, limit: number): Promise<Page<DeletedRecord>> {
    const rows = await tx.statement<BinRow>(
      'bin',
      `select x.id, x.kind, x.row, x.at, ${cursorTime('x.at')} as cursor, e.by, e.id as edit
       from removed_record x join record_edit e on e.workspace_id = x.workspace_id and e.id = x.edit_id
       where x.workspace_id = $1 and x.kind = $2 and ($3::timestamptz is null or (x.at, x.id) < ($3, $4::uuid))
       order by x.at desc, x.id desc limit $5`,
      [tx.workspaceId, kind, after?.at ?? null, after?.id ?? null, limit + 1],
    );
    return pageOf(
      rows,
      limit,
      ({ id, row, at, by }) => ({
        id,
        kind,
        number: Number(row.number),
        name: recordName(kind, columnsToValues(kind, row)),
        detail: String(row.email ?? row.domain ?? ''),
        by,
        at: at.toISOString(),
      }),
      (row) => ({ at: row.cursor, id: row.id }),
    );
  }

  /**
   * Brings deleted records back, all of them or none, with their links to what is there. What stood in a stage that has
   * gone begins where its pipeline begins.
   *
   * @throws ProblemError 404 for one that is not in the bin, 409 where another record has its e-mail, domain or unique
   *   value by now, or its pipeline has gone.
   */
  async bringBack(tx: WorkspaceTx, ids: readonly string[], by: Caller['by']): Promise<DoneEdit> {
    const wanted = [...new Set(ids)];
    const destination = await this.destinations.load(tx);
    await this.#placeAgain(tx, wanted, destination);
    const records = await this.#kept(tx, wanted);
    if (records.length < wanted.length)
      throw new ProblemError('not-found', 'Some of these are not among what was deleted any more. Look again.');
    const links = await this.#linksOf(tx, wanted);
    const own = new Set(wanted);
    const others = await this.held.byAnyIdThere(
      tx,
      links.flatMap(({ from, to }) => [from, to]).filter((id) => !own.has(id)),
    );
    const there = new Set([...own, ...others.map(({ id }) => id)]);
    const removed = emptyDiff();
    for (const { id, kind, values } of records) removed.removed[id] = { kind, values };
    const diff = emptyDiff();
    diff.created = withoutMisfits(removed, destination).removed;
    diff.linked = links.filter(({ from, to }) => there.has(from) && there.has(to));
    const [only] = records;
    const what =
      records.length === 1
        ? recordName(only!.kind, only!.values)
        : countedRecords(destination, records.length, only!.kind);
    return this.acts.apply(tx, others, [], { diff, text: `Brought back ${what}` }, by);
  }

  async #kept(tx: WorkspaceTx, ids: readonly string[]): Promise<KnownRecord[]> {
    if (!ids.every(isId)) return [];
    const kept: KnownRecord[] = [];
    for (const kind of RECORD_KINDS) {
      const rows = await tx.statement<RecordRow>(
        `bin_${kind}`,
        `select r.* from removed_record x, jsonb_populate_record(null::${kind}, x.row) r
         where x.workspace_id = $1 and x.id = any($2::uuid[]) and x.kind = '${kind}' and x.edit_id is not null for update of x`,
        [tx.workspaceId, ids],
      );
      kept.push(...rows.map((row) => knownRecord(kind, row)));
    }
    return kept;
  }

  /** The links that went with records when they were deleted. */
  async #linksOf(tx: WorkspaceTx, ids: readonly string[]): Promise<Link[]> {
    return tx.statement<Link & Record<string, string>>(
      'bin_links',
      `select distinct l ->> 'from' as "from", l ->> 'to' as "to" from record_change c, jsonb_array_elements(c.diff -> 'unlinked') l
       where c.workspace_id = $1 and c.cause_id in (select edit_id from removed_record where workspace_id = $1 and id = any($2::uuid[]))
         and (l ->> 'from' = any($2::text[]) or l ->> 'to' = any($2::text[]))`,
      [tx.workspaceId, ids],
    );
  }

  async #placeAgain(tx: WorkspaceTx, ids: readonly string[], destination: Destination): Promise<void> {
    const placed = (await this.#kept(tx, ids)).filter(({ values }) => values.pipeline && values.stage);
    for (const { id, kind, values } of placed) {
      const pipeline = pipelineOf(destination, values.pipeline as string);
      if (!pipeline)
        throw new ProblemError('conflict', 'The pipeline that it stood in has gone. Take back its removal first.');
      if (stageOf(pipeline, values.stage as string)) continue;
      const begins = defaultStageOf(pipeline);
      if (!begins) throw new ProblemError('conflict', `${pipeline.name} has no stage that it could begin in.`);
      const place = stageValues(pipeline, begins, new Date().toISOString());
      await tx.statement(
        'bin_place',
        'update removed_record set row = row || $3::jsonb where workspace_id = $1 and id = $2',
        [tx.workspaceId, id, JSON.stringify(valuesToColumns(kind, { ...values, ...place }))],
      );
    }
  }
}
