import { Inject, Injectable } from '@nestjs/common';
import {
  type FoundPair,
  type KnownRecord,
  type KnownRecords,
  squashAll,
  uniqueFieldsOf,
  type Destination,
  type Money,
  type RecordKind,
  type RecordsDiff,
} from '@haycart/core';
import type { HistoryEntry, RecordLinkShape, RecordShape, TouchShape } from '@haycart/api';
import { and, count, eq, inArray, isNotNull, sum } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { isId } from '../platform/paging';
import { DestinationService } from '../destination/destination.service';
import { indexAgain } from './recognised/index-again';
import { moveSome, survivorsOf } from './merged-records';
import { CandidateSearch } from './recognised/candidate-search.service';
import type { LookedAround } from './recognised/candidates';
import { RecordShapes } from './record-shapes';
import { HISTORY_SQL, historyEntry, type HistoryRow } from './history/record-history';
import { KnownRecordsStore, lockNames, type WantedRecords } from './known-records.store';
import { knownRecord, type RecordRow } from './record-rows';
import type { CausedDiff } from './history/caused-diff';
import { TOUCHES_SQL, touchShape, type TouchRow } from './history/touches';
import { deal } from './tables';
import { RecordWriter } from './record-writer';

/** Contacts, companies, leads and deals: reading them, and writing what was planned. */
@Injectable()
export class RecordsService {
  constructor(
    @Inject(CandidateSearch) private readonly search: CandidateSearch,
    @Inject(KnownRecordsStore) private readonly known: KnownRecordsStore,
    @Inject(RecordWriter) private readonly writer: RecordWriter,
    @Inject(RecordShapes) private readonly shapes: RecordShapes,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  /** Under which names what is wanted is locked, before it is; the same name is the same lock. */
  lockNames(tx: WorkspaceTx, { keys, blocks }: WantedRecords): string[] {
    return lockNames(tx.workspaceId, keys, blocks);
  }

  /** Locks the identity keys and answers all that is known of them; for planning that is then written. */
  async lockAndLoad(tx: WorkspaceTx, wanted: WantedRecords, destination: Destination): Promise<KnownRecords> {
    await this.known.lock(tx, wanted.keys, wanted.blocks);
    return this.known.load(tx, wanted, destination, 'lock');
  }

  /** The same without a lock; for planning that is only shown. */
  look(tx: WorkspaceTx, wanted: WantedRecords, destination: Destination): Promise<KnownRecords> {
    return this.known.load(tx, wanted, destination, 'look');
  }

  write(tx: WorkspaceTx, diffs: readonly CausedDiff[], known: KnownRecords): Promise<void> {
    return this.writer.write(tx, diffs, known);
  }

  /** Records of a kind as they are known, in the order of their ids; those that are gone are left out. */
  byId(tx: WorkspaceTx, kind: RecordKind, ids: readonly string[]): Promise<KnownRecord[]> {
    return this.known.byId(tx, kind, ids, 'look');
  }

  /** The pairs of some records with all that may be the same; for who has changed none of them in this transaction. */
  pairsAround(tx: WorkspaceTx, around: LookedAround): Promise<FoundPair[]> {
    return this.search.pairsAround(tx, around);
  }

  /** How many open deals each of some people looks after; whoever has none is left out. */
  async openDealsOf(tx: WorkspaceTx, people: readonly string[]): Promise<Map<string, number>> {
    if (!people.length) return new Map();
    const rows = await tx.db
      .select({ owner: deal.owner, open: count() })
      .from(deal)
      .where(and(eq(deal.workspaceId, tx.workspaceId), eq(deal.status, 'open'), inArray(deal.owner, [...people])))
      .groupBy(deal.owner);
    return new Map(rows.map(({ owner, open }) => [owner!, open]));
  }

  /** How many open leads and deals each of some people looks after; whoever has none is left out. */
  async openWorkOf(tx: WorkspaceTx, people: readonly string[]): Promise<Map<string, number>> {
    if (!people.length) return new Map();
    const rows = await tx.statement<{ owner: string; open: number }>(
      'open_work',
      `select owner, count(*)::int as open from (
         select owner from deal where workspace_id = $1 and status = 'open' and owner = any($2::text[])
         union all select owner from lead where workspace_id = $1 and status = 'open' and owner = any($2::text[])) r group by owner`,
      [tx.workspaceId, people],
    );
    return new Map(rows.map(({ owner, open }) => [owner, open]));
  }

  /** What the open deals of some people are worth, each in its own currency; whoever has none is left out. */
  async openWorthOf(tx: WorkspaceTx, people: readonly string[]): Promise<Map<string, Money[]>> {
    if (!people.length) return new Map();
    const rows = await tx.db
      .select({ owner: deal.owner, currency: deal.valueCurrency, amount: sum(deal.valueAmount).mapWith(Number) })
      .from(deal)
      .where(
        and(
          eq(deal.workspaceId, tx.workspaceId),
          eq(deal.status, 'open'),
          inArray(deal.owner, [...people]),
          isNotNull(deal.valueCurrency),
        ),
      )
      .groupBy(deal.owner, deal.valueCurrency);
    const worth = new Map<string, Money[]>();
    for (const { owner, currency, amount } of rows)
      worth.set(owner!, [...(worth.get(owner!) ?? []), { amount, currency: currency! }]);
    return worth;
  }

  /** The open leads and deals that somebody looks after, the oldest first. */
  async openOf(tx: WorkspaceTx, owner: string, limit: number): Promise<{ kind: 'lead' | 'deal'; id: string }[]> {
    return tx.statement<{ kind: 'lead' | 'deal'; id: string }>(
      'open_records_of',
      `select kind, id from (
         select 'deal' as kind, id, created_at from deal where workspace_id = $1 and status = 'open' and owner = $2
         union all select 'lead', id, created_at from lead where workspace_id = $1 and status = 'open' and owner = $2) r
       order by created_at, id limit $3`,
      [tx.workspaceId, owner, limit],
    );
  }

  async one(tx: WorkspaceTx, kind: RecordKind, id: string): Promise<RecordShape> {
    const [row] = isId(id)
      ? await tx.statement<RecordRow>(
          `${kind}_one`,
          `select r.* from ${kind} r where r.workspace_id = $1 and r.id = $2`,
          [tx.workspaceId, id],
        )
      : [];
    if (!row) {
      const survivor = (await this.survivors(tx, [id])).get(id);
      if (survivor) return this.one(tx, kind, survivor);
      throw new ProblemError('not-found', `There is no such ${kind}.`);
    }
    return (await this.shapes.of(tx, kind, [row]))[0]!;
  }

  /** Gives some records the keys and blocks by which they are found now; answers after which id to go on, if any. */
  async indexAgain(tx: WorkspaceTx, kind: RecordKind, after: string | null, most: number): Promise<string | null> {
    const { fields } = await this.destinations.load(tx);
    return indexAgain(tx, this.known, kind, uniqueFieldsOf(fields), after, most);
  }

  /** What absorbed records became part of, by the ids of those among these that were. */
  survivors(tx: WorkspaceTx, ids: readonly string[]): Promise<Map<string, string>> {
    return survivorsOf(tx, ids.filter(isId));
  }

  /** A record that was absorbed or deleted, as it was; `null` when it is not kept. */
  async removed(tx: WorkspaceTx, kind: RecordKind, id: string): Promise<KnownRecord | null> {
    const [row] = await tx.statement<RecordRow>(
      `removed_${kind}`,
      `select r.* from removed_record x, jsonb_populate_record(null::${kind}, x.row) r where x.workspace_id = $1 and x.id = $2`,
      [tx.workspaceId, id],
    );
    return row ? knownRecord(kind, row) : null;
  }

  /** Moves what came to a record since, by the ids of runs, notes, tasks and files. */
  moveSince(tx: WorkspaceTx, ids: readonly string[], from: string, to: string): Promise<void> {
    return moveSome(tx, ids, from, to);
  }

  /** Notes who undid a merge. */
  async mergeUndone(tx: WorkspaceTx, merge: string, by: string): Promise<void> {
    await tx.statement('merge_undone', 'update record_merge set undone_by = $3 where workspace_id = $1 and id = $2', [
      tx.workspaceId,
      merge,
      by,
    ]);
  }

  /** What happened to a record, latest first; the trace of each value comes with the run that wrote it. */
  async history(tx: WorkspaceTx, kind: RecordKind, id: string, destination: Destination): Promise<HistoryEntry[]> {
    await this.one(tx, kind, id);
    const rows = await tx.statement<HistoryRow>('history', HISTORY_SQL, [tx.workspaceId, id]);
    return rows.map((row) => historyEntry(row, kind, id, destination));
  }

  async touches(tx: WorkspaceTx, id: string): Promise<TouchShape[]> {
    const rows = await tx.statement<TouchRow>('touches_of', TOUCHES_SQL, [tx.workspaceId, id]);
    const destination = await this.destinations.load(tx);
    return rows.map((row) => touchShape(row, destination));
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
    const rows = await tx.statement<Omit<RecordLinkShape, 'number'> & { number: string }>(
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
