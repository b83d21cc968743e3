import { identityKeysOf, KnownRecords, type RecordKind, type UniqueFields } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import type { KnownRecordsStore } from '../known-records.store';
import { gainBlocks, ownBlocks } from './record-blocks';

/**
 * Gives records the keys and blocks that their values give them by now. A key that another record has stays with that one.
 *
 * @param after The id after which to go on, in the order of ids; `null`: from the beginning.
 * @returns The id to go on after; `null` when that was all.
 */
export async function indexAgain(
  tx: WorkspaceTx,
  store: KnownRecordsStore,
  kind: RecordKind,
  uniques: UniqueFields,
  after: string | null,
  most: number,
): Promise<string | null> {
  const rows = await tx.statement<{ id: string }>(
    `ids_to_index_${kind}`,
    `select id from ${kind} where workspace_id = $1 and ($2::uuid is null or id > $2) order by id limit $3`,
    [tx.workspaceId, after, most],
  );
  const ids = rows.map(({ id }) => id);
  if (!ids.length) return null;
  const own = await store.byId(tx, kind, ids, 'lock');
  const links = await store.linksOf(tx, ids);
  const companies = await store.byId(tx, 'company', [...new Set(links.map(({ to }) => to))], 'look');
  const known = new KnownRecords([...companies, ...own], links, uniques);
  const keys = own.flatMap((record) =>
    identityKeysOf(kind, record.values, uniques).map((key) => ({ ...key, id: record.id })),
  );
  const columns = [keys.map((key) => key.kind), keys.map(({ value }) => value), keys.map(({ id }) => id)];
  await tx.statement(
    'drop_stale_keys',
    `delete from identity_key k where k.workspace_id = $1 and k.record_kind = $2 and k.record_id = any($3::uuid[])
       and not exists (select 1 from unnest($4::text[], $5::text[], $6::uuid[]) w (key_kind, value, id)
         where w.value = k.value and w.id = k.record_id and (w.key_kind = k.key_kind or w.key_kind = 'email' and k.key_kind = 'shared-email'))`,
    [tx.workspaceId, kind, ids, ...columns],
  );
  await tx.statement(
    'add_missing_keys',
    `insert into identity_key (workspace_id, record_kind, key_kind, value, record_id)
     select $1::uuid, $2, * from unnest($3::text[], $4::text[], $5::uuid[]) on conflict do nothing`,
    [tx.workspaceId, kind, ...columns],
  );
  await gainBlocks(
    tx,
    own.flatMap((record) => ownBlocks(record, known)),
  );
  return ids.length < most ? null : ids[ids.length - 1]!;
}
