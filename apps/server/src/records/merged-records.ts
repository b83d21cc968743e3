import type { WorkspaceTx } from '../platform/database/database';
import { newId } from '../platform/new-id';
import type { CausedDiff } from './history/caused-diff';
import { recordName } from './record-rows';

/**
 * What belongs to a record and follows it into another, by table and the column that names the record. Consents stay where
 * they were said, since nothing may change them: they are read through the merge.
 */
const FOLLOWS = [
  ['touch', 'record_id'],
  ['assignment', 'record_id'],
  ['note', 'record_id'],
  ['task', 'record_id'],
  ['record_file', 'record_id'],
] as const;

/**
 * Moves what belongs to absorbed records to those that survive, and keeps what was moved, so that it can go back. Written
 * after the records themselves.
 */
export async function writeMerges(tx: WorkspaceTx, diffs: readonly CausedDiff[]): Promise<void> {
  for (const { merges = [], at, cause, by } of diffs)
    for (const { into, from, diff, probability = null } of merges) {
      const moved = await moveAll(tx, from, into);
      const { kind, values } = diff.removed[from]!;
      await tx.statement(
        'insert_merge',
        `insert into record_merge (workspace_id, id, record_kind, survivor_id, absorbed_id, absorbed_number, absorbed_name, cause_kind, cause_id, by, at, probability, diff, moved)
         select $1::uuid, $2::uuid, $3, $4::uuid, $5::uuid, coalesce((select (row ->> 'number')::bigint from removed_record where workspace_id = $1 and id = $5::uuid), 0), $6, $7, $8::uuid, $9, $10::timestamptz, $11, $12::jsonb, $13::jsonb`,
        [
          tx.workspaceId,
          newId(),
          kind,
          into,
          from,
          recordName(kind, values),
          cause.kind === 'run' ? 'run' : 'merge',
          cause.id,
          by ?? '',
          at,
          probability,
          JSON.stringify(diff),
          JSON.stringify(moved),
        ],
      );
    }
}

/** Records that come back were not absorbed after all: what was moved with them goes back, where it still is. */
export async function undoMerges(tx: WorkspaceTx, restored: readonly string[]): Promise<void> {
  if (!restored.length) return;
  const rows = await tx.statement<{ into: string; from: string; moved: Record<string, string[]> }>(
    'undo_merges',
    `update record_merge set undone_at = now() where workspace_id = $1 and absorbed_id = any($2::uuid[]) and undone_at is null
     returning survivor_id as into, absorbed_id as from, moved`,
    [tx.workspaceId, restored],
  );
  for (const { into, from, moved } of rows) {
    for (const [table, column] of FOLLOWS)
      if (moved[table]?.length)
        await tx.statement(
          `move_back_${table}`,
          `update ${table} set ${column} = $4 where workspace_id = $1 and id = any($2::uuid[]) and ${column} = $3`,
          [tx.workspaceId, moved[table], into, from],
        );
  }
}

/** Moves what came to a record since to another: touches by their runs, and notes, tasks and files by their ids. */
export async function moveSome(tx: WorkspaceTx, ids: readonly string[], from: string, to: string): Promise<void> {
  if (!ids.length) return;
  for (const [table, column] of [
    ['touch', 'attempt_id'],
    ['note', 'id'],
    ['task', 'id'],
    ['record_file', 'id'],
  ] as const)
    await tx.statement(
      `move_some_${table}`,
      `update ${table} set record_id = $4 where workspace_id = $1 and ${column} = any($2::uuid[]) and record_id = $3`,
      [tx.workspaceId, ids, from, to],
    );
}

async function moveAll(tx: WorkspaceTx, from: string, into: string): Promise<Record<string, string[]>> {
  const moved: Record<string, string[]> = {};
  for (const [table, column] of FOLLOWS) {
    const rows = await tx.statement<{ id: string }>(
      `move_${table}`,
      `update ${table} set ${column} = $3 where workspace_id = $1 and ${column} = $2 returning id`,
      [tx.workspaceId, from, into],
    );
    if (rows.length) moved[table] = rows.map(({ id }) => id);
  }
  return moved;
}

/** The record that an absorbed one became part of, through however many merges; the id itself where there is none. */
export async function survivorsOf(tx: WorkspaceTx, ids: readonly string[]): Promise<Map<string, string>> {
  if (!ids.length) return new Map();
  const rows = await tx.statement<{ id: string; survivor: string }>(
    'survivors_of',
    `with recursive way as (
       select absorbed_id as id, survivor_id as survivor, 1 as step from record_merge where workspace_id = $1 and absorbed_id = any($2::uuid[]) and undone_at is null
       union all select w.id, m.survivor_id, w.step + 1 from way w join record_merge m on m.workspace_id = $1 and m.absorbed_id = w.survivor and m.undone_at is null where w.step < 100)
     select distinct on (id) id, survivor from way order by id, step desc`,
    [tx.workspaceId, ids],
  );
  return new Map(rows.map(({ id, survivor }) => [id, survivor]));
}
