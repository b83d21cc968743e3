import { createHash } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import {
  RECORD_KINDS,
  splitByRecord,
  squashAll,
  type KnownRecord,
  type KnownRecords,
  type RecordKind,
  type RecordsDiff,
} from '@haycart/core';
import { newId } from '../platform/new-id';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { packed } from '../platform/database/packed';
import type { CausedDiff } from './history/caused-diff';
import { gainKeys, keysGained, keysLost, loseKeys } from './recognised/identity-keys';
import { TouchSources } from './history/touch-sources';
import { TouchWays } from './history/touch-ways';
import { undoMerges, writeMerges } from './merged-records';
import { writeBlocks } from './recognised/record-blocks';
import { fieldColumns, valuesToColumns } from './record-rows';
import { removeRecords, restoreRecords } from './removed-records';
import { writeMemberships, writeStageMoves } from './steps-in-time';

/** Writes diffs to the records, many at once in a few statements, with their history, links and identity keys. */
@Injectable()
export class RecordWriter {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(TouchSources) private readonly sources: TouchSources,
    @Inject(TouchWays) private readonly ways: TouchWays,
  ) {}

  /**
   * Writes diffs that were planned one after the other.
   *
   * @param known The records as they are after all of the diffs: they must have been learned.
   */
  async write(tx: WorkspaceTx, diffs: readonly CausedDiff[], known: KnownRecords): Promise<void> {
    const whole = squashAll(diffs.map(({ diff }) => diff));
    const at = diffs[0]?.at ?? '';
    await removeRecords(tx, whole, at, deletedByPeople(diffs));
    // Only people bring back what was removed; routing is spared the look.
    const byPeople = diffs.some(({ cause }) => cause.kind !== 'run');
    const restored = byPeople ? await restoreRecords(tx, Object.keys(whole.created)) : new Set<string>();
    await undoMerges(tx, [...restored]);
    const made = Object.keys(whole.created).map((id) => known.get(id)!);
    const created = made.filter(({ id }) => !restored.has(id));
    const changed = [...Object.keys(whole.changed), ...restored].map((id) => known.get(id)!);
    const numbers = await this.#nextNumbers(tx.workspaceId, created);
    for (const kind of RECORD_KINDS) {
      await insertRecords(
        tx,
        kind,
        created.filter((record) => record.kind === kind),
        numbers,
      );
      await updateRecords(
        tx,
        kind,
        changed.filter((record) => record.kind === kind),
      );
    }
    await loseKeys(tx, keysLost(whole, known));
    await gainKeys(tx, keysGained(whole, known));
    await writeBlocks(tx, whole, known);
    await writeLinks(tx, whole, known, at);
    await writeChanges(tx, diffs, known);
    await writeStageMoves(tx, diffs, known);
    await writeMemberships(tx, diffs);
    await this.#writeTouches(tx, diffs, known);
    await writeMerges(tx, diffs);
  }

  /**
   * Numbers are given in a transaction of their own, so that no two writers wait for each other; a gap does no harm. Its
   * commit is not waited for: that of the records follows in the log, so that these are never durable without it.
   */
  async #nextNumbers(workspaceId: string, created: readonly KnownRecord[]): Promise<Map<RecordKind, number>> {
    const counts = new Map<RecordKind, number>();
    for (const { kind } of created) counts.set(kind, (counts.get(kind) ?? 0) + 1);
    if (!counts.size) return new Map();
    const rows = await this.database.inWorkspaceOnce<{ record_kind: RecordKind; last: string }>(
      workspaceId,
      'next_numbers',
      `insert into record_counter (workspace_id, record_kind, last)
       select $1::uuid, n.kind, n.count from entered, (select set_config('synchronous_commit', 'off', true)) hurried, unnest($2::text[], $3::bigint[]) n (kind, count) order by n.kind
       on conflict (workspace_id, record_kind) do update set last = record_counter.last + excluded.last
       returning record_kind, last`,
      [[...counts.keys()], [...counts.values()]],
    );
    return new Map(rows.map(({ record_kind, last }) => [record_kind, Number(last) - counts.get(record_kind)! + 1]));
  }

  async #writeTouches(tx: WorkspaceTx, diffs: readonly CausedDiff[], known: KnownRecords): Promise<void> {
    // What a later diff of the same batch absorbed is moved with the merge.
    const kindOf = (id: string) =>
      known.get(id)?.kind ?? diffs.find(({ diff }) => diff.removed[id])!.diff.removed[id]!.kind;
    const rows = diffs.flatMap(({ touches, cause }) =>
      (touches?.records ?? []).map((touch) => ({
        ...touch,
        id: newId(),
        run: cause.id,
        kind: kindOf(touch.record),
        visit: touch.earlier === undefined ? touches!.submission : visitId(tx.workspaceId, touch.earlier),
        way: (touch.earlier === undefined ? undefined : touches!.before.get(touch.earlier)) ?? touches!.way,
      })),
    );
    if (!rows.length) return;
    const visits = [...new Map(rows.map((row) => [row.visit, row])).values()];
    await tx.statement(
      'touches',
      `with visited as (
       insert into visit (workspace_id, id, at, source_id, way_id, earlier) select $1::uuid, * from unnest($7::uuid[], $8::timestamptz[], $9::int[], $10::int[], $11::boolean[])
       on conflict (workspace_id, id) do nothing)
     insert into touch (workspace_id, id, record_kind, record_id, attempt_id, visit_id)
     select $1::uuid, * from unnest($2::uuid[], $3::text[], $4::uuid[], $5::uuid[], $6::uuid[])`,
      [
        tx.workspaceId,
        rows.map((r) => r.id),
        rows.map((r) => r.kind),
        rows.map((r) => r.record),
        rows.map((r) => r.run),
        rows.map((r) => r.visit),
        visits.map((v) => v.visit),
        visits.map((v) => v.at),
        await this.sources.idsOf(tx.workspaceId, visits),
        await this.ways.idsOf(
          tx.workspaceId,
          visits.map(({ way }) => way),
        ),
        visits.map(({ earlier }) => earlier !== undefined),
      ],
    );
  }
}

/** The id of an earlier visit: the same each time it is handed over, and different in each workspace. */
function visitId(workspaceId: string, given: string): string {
  const hash = createHash('sha256').update(`${workspaceId} ${given}`).digest('hex');
  return `${hash.slice(0, 8)}-${hash.slice(8, 12)}-8${hash.slice(13, 16)}-8${hash.slice(17, 20)}-${hash.slice(20, 32)}`;
}

function deletedByPeople(diffs: readonly CausedDiff[]): Map<string, string> {
  return new Map(
    diffs.flatMap(({ diff, cause }) =>
      cause.kind === 'person' ? Object.keys(diff.removed).map((id): [string, string] => [id, cause.id]) : [],
    ),
  );
}

async function writeLinks(
  tx: WorkspaceTx,
  { linked, unlinked }: RecordsDiff,
  known: KnownRecords,
  at: string,
): Promise<void> {
  if (unlinked.length)
    await tx.statement(
      'unlink',
      `delete from record_link l using unnest($2::uuid[], $3::uuid[]) u (a, b) where l.workspace_id = $1 and l.from_id = u.a and l.to_id = u.b`,
      [tx.workspaceId, unlinked.map(({ from }) => from), unlinked.map(({ to }) => to)],
    );
  if (!linked.length) return;
  const kinds = (ids: string[]) => ids.map((id) => known.get(id)!.kind);
  const from = linked.map((link) => link.from);
  const to = linked.map((link) => link.to);
  await tx.statement(
    'link',
    `insert into record_link (workspace_id, from_kind, from_id, to_kind, to_id, at)
     select $1::uuid, l.*, $6::timestamptz from unnest($2::text[], $3::uuid[], $4::text[], $5::uuid[]) l on conflict do nothing`,
    [tx.workspaceId, kinds(from), from, kinds(to), to, at],
  );
}

async function writeChanges(tx: WorkspaceTx, diffs: readonly CausedDiff[], known: KnownRecords): Promise<void> {
  const rows = diffs.flatMap(({ diff, at, cause }) =>
    [...splitByRecord(diff)].map(([id, part]) => ({
      id: newId(),
      kind: known.get(id)?.kind ?? part.removed[id]!.kind,
      record: id,
      at,
      cause,
      diff: JSON.stringify(part),
    })),
  );
  if (!rows.length) return;
  const parts = packed(rows.map(({ diff }) => diff));
  await tx.statement(
    'changes',
    `insert into record_change (workspace_id, id, record_kind, record_id, at, cause_kind, cause_id, diff)
     select $1::uuid, id, kind, record, at, cause_kind, cause, convert_from(substring($8::bytea from start for length), 'UTF8')::jsonb
     from unnest($2::uuid[], $3::text[], $4::uuid[], $5::timestamptz[], $6::text[], $7::uuid[], $9::int[], $10::int[])
       c (id, kind, record, at, cause_kind, cause, start, length)`,
    [
      tx.workspaceId,
      rows.map((r) => r.id),
      rows.map((r) => r.kind),
      rows.map((r) => r.record),
      rows.map((r) => r.at),
      rows.map((r) => r.cause.kind),
      rows.map((r) => r.cause.id),
      parts.bytes,
      parts.starts,
      parts.lengths,
    ],
  );
}

async function insertRecords(
  tx: WorkspaceTx,
  kind: RecordKind,
  records: readonly KnownRecord[],
  numbers: Map<RecordKind, number>,
): Promise<void> {
  if (!records.length) return;
  const first = numbers.get(kind)!;
  const rows = records.map((record, index) => ({
    ...valuesToColumns(kind, record.values),
    id: record.id,
    number: first + index,
    written_at: record.writtenAt,
    typed: record.typed ?? [],
    created_at: record.createdAt,
    updated_at: lastWritten(record),
  }));
  const columns = [
    'id',
    'number',
    'custom',
    'written_at',
    'typed',
    'created_at',
    'updated_at',
    ...fieldColumns(kind),
  ].join(', ');
  await tx.statement(
    `insert_${kind}`,
    `insert into ${kind} (workspace_id, ${columns}) select $1::uuid, ${columns} from jsonb_populate_recordset(null::${kind}, $2::jsonb)`,
    [tx.workspaceId, JSON.stringify(rows)],
  );
}

async function updateRecords(tx: WorkspaceTx, kind: RecordKind, records: readonly KnownRecord[]): Promise<void> {
  if (!records.length) return;
  const rows = records.map((record) => ({
    ...valuesToColumns(kind, record.values),
    id: record.id,
    written_at: record.writtenAt,
    typed: record.typed ?? [],
    updated_at: lastWritten(record),
  }));
  const sets = ['custom', 'written_at', 'typed', ...fieldColumns(kind)]
    .map((column) => `${column} = n.${column}`)
    .join(', ');
  await tx.statement(
    `update_${kind}`,
    `update ${kind} r set ${sets}, updated_at = greatest(r.updated_at, n.updated_at)
     from jsonb_populate_recordset(null::${kind}, $2::jsonb) n where r.workspace_id = $1 and r.id = n.id`,
    [tx.workspaceId, JSON.stringify(rows)],
  );
}

function lastWritten({ writtenAt, createdAt }: KnownRecord): string {
  return Object.values(writtenAt).reduce((last, at) => (at > last ? at : last), createdAt);
}
