import { Inject, Injectable } from '@nestjs/common';
import {
  type KnownRecords,
  squashAll,
  type Destination,
  type Lookups,
  type UniqueFields,
  type RecordKind,
  type RecordsDiff,
} from '@haycart/core';
import type { HistoryEntry, RecordLinkShape, RecordShape, TouchShape } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { isId } from '../platform/paging';
import { RecordShapes } from './record-shapes';
import { HISTORY_SQL, historyEntry, type HistoryRow } from './record-history';
import { KnownRecordsStore } from './known-records.store';
import type { RecordRow } from './record-rows';
import type { CausedDiff } from './caused-diff';
import { STILL_COUNTS } from './touches';
import { RecordWriter } from './record-writer';

/** Contacts, companies, leads and deals: reading them, and writing what was planned. */
@Injectable()
export class RecordsService {
  constructor(
    @Inject(KnownRecordsStore) private readonly known: KnownRecordsStore,
    @Inject(RecordWriter) private readonly writer: RecordWriter,
    @Inject(RecordShapes) private readonly shapes: RecordShapes,
  ) {}

  /** Locks the identity keys and answers all that is known of them; for planning that is then written. */
  async lockAndLoad(tx: WorkspaceTx, { keys, deals }: Lookups, uniques: UniqueFields): Promise<KnownRecords> {
    await this.known.lock(tx, keys);
    return this.known.load(tx, keys, deals, uniques, 'lock');
  }

  /** The same without a lock; for planning that is only shown. */
  look(tx: WorkspaceTx, { keys, deals }: Lookups, uniques: UniqueFields): Promise<KnownRecords> {
    return this.known.load(tx, keys, deals, uniques, 'look');
  }

  write(tx: WorkspaceTx, diffs: readonly CausedDiff[], known: KnownRecords): Promise<void> {
    return this.writer.write(tx, diffs, known);
  }

  async one(tx: WorkspaceTx, kind: RecordKind, id: string): Promise<RecordShape> {
    const [row] = isId(id)
      ? await tx.statement<RecordRow>(
          `${kind}_one`,
          `select r.* from ${kind} r where r.workspace_id = $1 and r.id = $2`,
          [tx.workspaceId, id],
        )
      : [];
    if (!row) throw new ProblemError('not-found', `There is no such ${kind}.`);
    return (await this.shapes.of(tx, kind, [row]))[0]!;
  }

  /** What happened to a record, latest first; the trace of each value comes with the run that wrote it. */
  async history(tx: WorkspaceTx, kind: RecordKind, id: string, destination: Destination): Promise<HistoryEntry[]> {
    await this.one(tx, kind, id);
    const rows = await tx.statement<HistoryRow>('history', HISTORY_SQL, [tx.workspaceId, id]);
    return rows.map((row) => historyEntry(row, kind, id, destination));
  }

  async touches(tx: WorkspaceTx, id: string): Promise<TouchShape[]> {
    const rows = await tx.statement<Omit<TouchShape, 'at'> & { at: Date }>(
      'touches_of',
      `select at, channel, source, medium, campaign, page from touch where workspace_id = $1 and record_id = $2 and ${STILL_COUNTS} order by at, id limit 500`,
      [tx.workspaceId, id],
    );
    return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
  }

  /** Everything that one cause did to records, as one diff. */
  async diffOf(tx: WorkspaceTx, causeId: string): Promise<RecordsDiff> {
    const rows = await tx.statement<{ diff: RecordsDiff }>(
      'diff_of',
      'select diff from record_change where workspace_id = $1 and cause_id = $2 order by id',
      [tx.workspaceId, causeId],
    );
    return squashAll(rows.map(({ diff }) => diff));
  }

  /** Kind, number and name of records by id. */
  async named(tx: WorkspaceTx, ids: readonly string[]): Promise<Map<string, RecordLinkShape>> {
    if (!ids.length) return new Map();
    const rows = await tx.statement<RecordLinkShape & { number: string }>(
      'named',
      `select id, 'contact' as kind, number, coalesce(full_name, email, phone, 'without a name') as name from contact where workspace_id = $1 and id = any($2::uuid[])
       union all select id, 'company', number, name from company where workspace_id = $1 and id = any($2::uuid[])
       union all select id, 'lead', number, name from lead where workspace_id = $1 and id = any($2::uuid[])
       union all select id, 'deal', number, name from deal where workspace_id = $1 and id = any($2::uuid[])`,
      [tx.workspaceId, ids],
    );
    return new Map(rows.map((row) => [row.id, { ...row, number: Number(row.number) }]));
  }
}
