import { RECORD_KINDS, type RecordsDiff } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';

/**
 * Takes records out of their tables and keeps them whole, so that they can come back with their numbers.
 *
 * @param edits The acts by which people deleted some of them, by the ids of the records.
 */
export async function removeRecords(
  tx: WorkspaceTx,
  { removed }: RecordsDiff,
  at: string,
  edits: ReadonlyMap<string, string>,
): Promise<void> {
  for (const kind of RECORD_KINDS) {
    const ids = Object.keys(removed).filter((id) => removed[id]!.kind === kind);
    if (!ids.length) continue;
    await tx.statement(
      `remove_${kind}`,
      `with gone as (delete from ${kind} r where r.workspace_id = $1 and r.id = any($2::uuid[]) returning r.*)
       insert into removed_record (workspace_id, id, kind, row, at, edit_id)
       select g.workspace_id, g.id, '${kind}', to_jsonb(g), $3::timestamptz, e.edit
       from gone g join unnest($2::uuid[], $4::uuid[]) e (id, edit) on e.id = g.id`,
      [tx.workspaceId, ids, at, ids.map((id) => edits.get(id) ?? null)],
    );
    await tx.statement(
      'remove_keys',
      'delete from identity_key where workspace_id = $1 and record_id = any($2::uuid[])',
      [tx.workspaceId, ids],
    );
    await tx.statement(
      'leave_lists',
      'update list_membership set left_at = $3::timestamptz where workspace_id = $1 and contact_id = any($2::uuid[]) and left_at is null',
      [tx.workspaceId, ids, at],
    );
  }
}

/** Puts records that were removed back into their tables. Answers which of the ids those are. */
export async function restoreRecords(tx: WorkspaceTx, ids: readonly string[]): Promise<Set<string>> {
  if (!ids.length) return new Set();
  const rows = await tx.statement<{ id: string; kind: string }>(
    'removed_among',
    'select id, kind from removed_record where workspace_id = $1 and id = any($2::uuid[]) for update',
    [tx.workspaceId, ids],
  );
  for (const kind of RECORD_KINDS) {
    const own = rows.filter((row) => row.kind === kind).map(({ id }) => id);
    if (!own.length) continue;
    await tx.statement(
      `restore_${kind}`,
      `with back as (delete from removed_record where workspace_id = $1 and id = any($2::uuid[]) returning row)
       insert into ${kind} select r.* from back, jsonb_populate_record(null::${kind}, back.row) r`,
      [tx.workspaceId, own],
    );
  }
  return new Set(rows.map(({ id }) => id));
}
