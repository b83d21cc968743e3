import {
  identityKeysOf,
  identityKeyText,
  isShareable,
  type IdentityKey,
  type KnownRecords,
  type RecordsDiff,
} from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';

/** An identity key with the record that it belongs to. */
export type OwnedKey = IdentityKey & { id: string };

/** The identity keys that records get by a diff. */
export function keysGained(diff: RecordsDiff, known: KnownRecords): OwnedKey[] {
  const created = Object.keys(diff.created).flatMap((id) => {
    const { kind, values } = known.get(id)!;
    return identityKeysOf(kind, values, known.uniques).map((key) => ({ ...key, id }));
  });
  return [...created, ...Object.keys(diff.changed).flatMap((id) => changedKeys(diff, id, known).gained)];
}

/** The identity keys that records lose by a diff; those of removed records go with them. */
export function keysLost(diff: RecordsDiff, known: KnownRecords): OwnedKey[] {
  return Object.keys(diff.changed).flatMap((id) => changedKeys(diff, id, known).lost);
}

function changedKeys(diff: RecordsDiff, id: string, known: KnownRecords): { gained: OwnedKey[]; lost: OwnedKey[] } {
  const { kind, values } = known.get(id)!;
  const before = { ...values };
  for (const [field, change] of Object.entries(diff.changed[id]!.fields)) {
    if (change.before === null) delete before[field];
    else before[field] = change.before;
  }
  const had = new Map(identityKeysOf(kind, before, known.uniques).map((key) => [identityKeyText(key), { ...key, id }]));
  const gained = identityKeysOf(kind, values, known.uniques)
    .filter((key) => !had.delete(identityKeyText(key)))
    .map((key) => ({ ...key, id }));
  return { gained, lost: [...had.values()] };
}

/** Takes keys away; an address is taken away as one that several people use, too. */
export async function loseKeys(tx: WorkspaceTx, keys: readonly OwnedKey[]): Promise<void> {
  if (!keys.length) return;
  await tx.statement(
    'lose_keys',
    `delete from identity_key k using unnest($2::text[], $3::text[], $4::text[], $5::uuid[]) l (record_kind, key_kind, value, record_id)
     where k.workspace_id = $1 and (k.record_kind, k.value, k.record_id) = (l.record_kind, l.value, l.record_id)
       and k.key_kind = any(case l.key_kind when 'email' then array['email', 'shared-email'] else array[l.key_kind] end)`,
    [tx.workspaceId, ...columns(keys)],
  );
}

/**
 * Gives keys. An address of a contact that another has already becomes one that several people use: whether it may was
 * looked at before, under the lock on the key.
 */
export async function gainKeys(tx: WorkspaceTx, keys: readonly OwnedKey[]): Promise<void> {
  if (!keys.length) return;
  await tx.statement(
    'gain_keys',
    `with held as materialized (select value from identity_key
       where workspace_id = $1 and record_kind = 'contact' and key_kind = 'email' and value = any($6::text[]))
     insert into identity_key (workspace_id, record_kind, key_kind, value, record_id)
     select $1::uuid, record_kind, case when record_kind = 'contact' and key_kind = 'email' and (nth > 1 or value in (select value from held))
       then 'shared-email' else key_kind end, value, record_id
     from (select *, row_number() over (partition by record_kind, key_kind, value) as nth
       from unnest($2::text[], $3::text[], $4::text[], $5::uuid[]) u (record_kind, key_kind, value, record_id)) w`,
    [tx.workspaceId, ...columns(keys), keys.filter(isShareable).map(({ value }) => value)],
  );
}

function columns(keys: readonly OwnedKey[]): string[][] {
  return [
    keys.map(({ record }) => record),
    keys.map(({ kind }) => kind),
    keys.map(({ value }) => value),
    keys.map(({ id }) => id),
  ];
}
