import { Inject, Injectable } from '@nestjs/common';
import {
  uniqueText,
  type FieldKeys,
  type FieldValue,
  type HeldValue,
  type KnownRecord,
  type RecordKind,
} from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { gainKeys } from '../recognised/identity-keys';
import { KnownRecordsStore } from '../known-records.store';

/** The most records whose values one change of a field rewrites. */
const MOST = 100_000;

/** A value of a record that is linked with another. */
export interface LinkedValue {
  source: string;
  target: string;
  value: FieldValue;
  /** When it was written. */
  at: string;
}

/** The values that records hold in one of the workspace's own fields. */
@Injectable()
export class FieldValuesService {
  constructor(@Inject(KnownRecordsStore) private readonly known: KnownRecordsStore) {}

  /** Each value with how many records hold it. */
  distinct(tx: WorkspaceTx, record: RecordKind, key: string): Promise<HeldValue[]> {
    return tx.statement<HeldValue>(
      `${record}_distinct_values`,
      `select custom -> $2 as value, count(*)::int as count from ${record} where workspace_id = $1 and custom ? $2 group by 1 order by 2 desc, 1`,
      [tx.workspaceId, key],
    );
  }

  async count(tx: WorkspaceTx, record: RecordKind, key: string): Promise<number> {
    const [row] = await tx.statement<{ count: number }>(
      `${record}_values_held`,
      `select count(*)::int as count from ${record} where workspace_id = $1 and custom ? $2`,
      [tx.workspaceId, key],
    );
    return row!.count;
  }

  /** The records that hold a value, kept from being changed meanwhile. */
  async holding(tx: WorkspaceTx, record: RecordKind, key: string): Promise<KnownRecord[]> {
    const rows = await tx.statement<{ id: string }>(
      `${record}_holding`,
      `select id from ${record} where workspace_id = $1 and custom ? $2 limit ${MOST + 1}`,
      [tx.workspaceId, key],
    );
    return this.byIds(
      tx,
      record,
      rows.map(({ id }) => id),
    );
  }

  async byIds(tx: WorkspaceTx, record: RecordKind, ids: readonly string[]): Promise<KnownRecord[]> {
    if (ids.length > MOST)
      throw new ProblemError('refused', `More than ${MOST} records hold a value; that many cannot be changed at once.`);
    return this.known.byId(tx, record, ids, 'lock');
  }

  /** The values of a field on records that are linked with records of another kind. */
  linkedValues(tx: WorkspaceTx, { record, key }: FieldKeys, to: RecordKind): Promise<LinkedValue[]> {
    return tx.statement<LinkedValue>(
      `${record}_values_linked_${to}`,
      `with held as (select id, custom -> $2 as value, coalesce(written_at ->> $2, '') as at from ${record} where workspace_id = $1 and custom ? $2)
       select h.id as source, l.to_id as target, h.value, h.at from held h join record_link l on l.workspace_id = $1 and l.from_id = h.id and l.to_kind = '${to}'
       union all select h.id, l.from_id, h.value, h.at from held h join record_link l on l.workspace_id = $1 and l.to_id = h.id and l.from_kind = '${to}'`,
      [tx.workspaceId, key],
    );
  }

  /** Values that more than one record holds, whatever their capitals. */
  heldTwice(tx: WorkspaceTx, record: RecordKind, key: string): Promise<{ value: string; count: number }[]> {
    return tx.statement(
      `${record}_held_twice`,
      `select min(custom ->> $2) as value, count(*)::int as count from ${record} where workspace_id = $1 and custom ? $2
       group by lower(trim(custom ->> $2)) having count(*) > 1 order by 2 desc limit 5`,
      [tx.workspaceId, key],
    );
  }

  /** Makes the values of a field keys by which records are recognised and kept apart. */
  async makeKeys(tx: WorkspaceTx, record: RecordKind, key: string): Promise<void> {
    const rows = await tx.statement<{ id: string; value: FieldValue }>(
      `${record}_key_values`,
      `select id, custom -> $2 as value from ${record} where workspace_id = $1 and custom ? $2`,
      [tx.workspaceId, key],
    );
    await gainKeys(
      tx,
      rows.map(({ id, value }) => ({ id, record, kind: `field:${key}`, value: uniqueText(value) })),
    );
  }

  async dropKeys(tx: WorkspaceTx, record: RecordKind, key: string): Promise<void> {
    await tx.statement(
      'drop_field_keys',
      'delete from identity_key where workspace_id = $1 and record_kind = $2 and key_kind = $3',
      [tx.workspaceId, record, `field:${key}`],
    );
  }
}
