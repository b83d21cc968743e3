import { Inject, Injectable } from '@nestjs/common';
import {
  changesBetween,
  emptyDiff,
  RECORD_KINDS,
  type FieldValues,
  type KnownRecord,
  type RecordKind,
} from '@haycart/core';
import type { DoneEdit, MembershipLine } from '@haycart/api';
import type { Caller } from '../../platform/auth/caller';
import type { WorkspaceTx } from '../../platform/database/database';
import { KnownRecordsStore } from '../known-records.store';
import { RecordActs } from './record-acts.service';

type LabelKind = 'tag' | 'list';
const KINDS: Record<LabelKind, readonly RecordKind[]> = { tag: RECORD_KINDS, list: ['contact'] };

/** The records that carry tags, and the contacts on lists. */
@Injectable()
export class LabelledService {
  constructor(
    @Inject(KnownRecordsStore) private readonly known: KnownRecordsStore,
    @Inject(RecordActs) private readonly acts: RecordActs,
  ) {}

  /** How many records carry each label. */
  async counts(tx: WorkspaceTx, kind: LabelKind): Promise<Map<string, number>> {
    const parts = KINDS[kind].map((record) => `select unnest(${kind}s) as key from ${record} where workspace_id = $1`);
    const rows = await tx.statement<{ key: string; count: number }>(
      `${kind}_counts`,
      `select key, count(*)::int as count from (${parts.join(' union all ')}) l group by key`,
      [tx.workspaceId],
    );
    return new Map(rows.map(({ key, count }) => [key, count]));
  }

  /** Puts one label in the place of another on every record, or takes it off: one act that can be taken back. */
  async replace(
    tx: WorkspaceTx,
    kind: LabelKind,
    key: string,
    by: string | null,
    text: string,
    who: Caller['by'],
  ): Promise<DoneEdit> {
    const diff = emptyDiff();
    const records: KnownRecord[] = [];
    for (const record of KINDS[kind]) {
      for (const one of await this.#carrying(tx, record, kind, key)) {
        const fields = changesBetween(one.values, replaced(one.values, `${kind}s`, key, by));
        diff.changed[one.id] = { kind: record, fields };
        records.push(one);
      }
    }
    return this.acts.apply(tx, records, [], { diff, text }, who);
  }

  /** The latest memberships of a list, those that ended too. */
  async memberships(tx: WorkspaceTx, list: string): Promise<MembershipLine[]> {
    const rows = await tx.statement<
      Omit<MembershipLine, 'joinedAt' | 'leftAt'> & { joinedAt: Date; leftAt: Date | null }
    >(
      'memberships',
      `select m.contact_id as contact, coalesce(c.full_name, c.email, c.phone, 'a deleted contact') as name, m.joined_at as "joinedAt", m.left_at as "leftAt"
       from list_membership m left join contact c on c.workspace_id = m.workspace_id and c.id = m.contact_id
       where m.workspace_id = $1 and m.list_key = $2 order by coalesce(m.left_at, m.joined_at) desc, m.id desc limit 200`,
      [tx.workspaceId, list],
    );
    return rows.map((row) => ({
      ...row,
      joinedAt: row.joinedAt.toISOString(),
      leftAt: row.leftAt?.toISOString() ?? null,
    }));
  }

  async #carrying(tx: WorkspaceTx, record: RecordKind, kind: LabelKind, key: string): Promise<KnownRecord[]> {
    const rows = await tx.statement<{ id: string }>(
      `${record}_carrying_${kind}`,
      `select id from ${record} where workspace_id = $1 and ${kind}s @> array[$2::text]`,
      [tx.workspaceId, key],
    );
    return this.known.byId(
      tx,
      record,
      rows.map(({ id }) => id),
      'lock',
    );
  }
}

function replaced(values: FieldValues, field: string, key: string, by: string | null): FieldValues {
  const held = (values[field] as string[]).map((one) => (one === key ? by : one));
  const { [field]: _, ...rest } = values;
  const after = [...new Set(held.filter((one) => one !== null))];
  return after.length ? { ...rest, [field]: after } : rest;
}
