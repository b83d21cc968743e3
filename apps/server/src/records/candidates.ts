import { LARGEST_BLOCK, type Block, type RecordKind } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';

/** The records that share a block with what is looked for: those that may be alike. Too large a block tells nothing. */
export async function candidates(
  tx: WorkspaceTx,
  blocks: readonly Block[],
): Promise<{ record_kind: RecordKind; record_id: string }[]> {
  if (!blocks.length) return [];
  return tx.statement(
    'candidates',
    `select distinct b.record_kind, b.record_id from (select distinct * from unnest($2::text[], $3::text[]) w (record_kind, block)) w
     cross join lateral (select i.*, count(*) over () as size from (select i.record_kind, i.record_id from record_block i
       where i.workspace_id = $1 and i.record_kind = w.record_kind and i.block = w.block limit ${LARGEST_BLOCK + 1}) i) b
     where b.size <= ${LARGEST_BLOCK}`,
    [tx.workspaceId, blocks.map(({ record }) => record), blocks.map(({ block }) => block)],
  );
}
