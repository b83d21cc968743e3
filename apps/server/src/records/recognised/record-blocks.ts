import { BLOCK_FIELDS, blocksOf, type KnownRecord, type KnownRecords, type RecordsDiff } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';

interface OwnedBlock {
  kind: string;
  block: string;
  id: string;
}

/** Brings the blocks up to date, under which records are found by those that may be like them. */
export async function writeBlocks(tx: WorkspaceTx, diff: RecordsDiff, known: KnownRecords): Promise<void> {
  const changed = idsOfOtherBlocks(diff).map((id) => known.get(id)!);
  const created = Object.keys(diff.created).map((id) => known.get(id)!);
  const blocks = [...changed, ...created].flatMap((record) => ownBlocks(record, known));
  const stale = [...changed.map(({ id }) => id), ...Object.keys(diff.removed)];
  if (stale.length)
    await tx.statement(
      'lose_blocks',
      `delete from record_block b where b.workspace_id = $1 and b.record_id = any($2::uuid[])
         and not exists (select 1 from unnest($3::text[], $4::uuid[]) k (block, id) where k.block = b.block and k.id = b.record_id)`,
      [tx.workspaceId, stale, blocks.map(({ block }) => block), blocks.map(({ id }) => id)],
    );
  await gainBlocks(tx, blocks);
}

/** The changed records whose blocks may be others now: most changes are of fields that tell nothing about who it is. */
function idsOfOtherBlocks({ changed, linked, unlinked }: RecordsDiff): string[] {
  const relinked = new Set([...linked, ...unlinked].map(({ from }) => from));
  return Object.keys(changed).filter(
    (id) => relinked.has(id) || Object.keys(changed[id]!.fields).some((field) => BLOCK_FIELDS.has(field)),
  );
}

/** Adds blocks that are not there yet. */
export async function gainBlocks(tx: WorkspaceTx, blocks: readonly OwnedBlock[]): Promise<void> {
  if (!blocks.length) return;
  await tx.statement(
    'gain_blocks',
    `insert into record_block (workspace_id, record_kind, block, record_id)
     select $1::uuid, * from unnest($2::text[], $3::text[], $4::uuid[]) on conflict do nothing`,
    [tx.workspaceId, blocks.map(({ kind }) => kind), blocks.map(({ block }) => block), blocks.map(({ id }) => id)],
  );
}

/** The blocks of a record. Deals are found by their contact, so they have none. */
export function ownBlocks(record: KnownRecord, known: KnownRecords): OwnedBlock[] {
  if (record.kind === 'deal') return [];
  return blocksOf(known.compared(record)).map((block) => ({ kind: record.kind, block, id: record.id }));
}
