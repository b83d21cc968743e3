import { Inject, Injectable } from '@nestjs/common';
import { fieldsOf, showRecordValue, type Destination, type KnownRecord } from '@haycart/core';
import type { RecordSide } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { RecordsService } from '../records/records.service';

/** Records as they are shown side by side. */
@Injectable()
export class RecordSides {
  constructor(@Inject(RecordsService) private readonly records: RecordsService) {}

  /** Records in the order given, with what they are linked to and when something last happened to them. */
  async of(tx: WorkspaceTx, records: readonly KnownRecord[], destination: Destination): Promise<RecordSide[]> {
    const ids = records.map(({ id }) => id);
    const names = await this.records.named(tx, ids);
    const links = await tx.statement<{ id: string; other: string }>(
      'links_of_sides',
      `select from_id as id, to_id as other from record_link where workspace_id = $1 and from_id = any($2::uuid[])
       union select to_id, from_id from record_link where workspace_id = $1 and to_id = any($2::uuid[]) limit 500`,
      [tx.workspaceId, ids],
    );
    const others = await this.records.named(
      tx,
      links.map(({ other }) => other),
    );
    const last = await tx.statement<{ id: string; at: Date }>(
      'last_activity_of_sides',
      `select record_id as id, max(at) as at from (
         select record_id, at from record_change where workspace_id = $1 and record_id = any($2::uuid[])
         union all select t.record_id, v.at from touch t join visit v on v.workspace_id = t.workspace_id and v.id = t.visit_id where t.workspace_id = $1 and t.record_id = any($2::uuid[])
         union all select record_id, at from note where workspace_id = $1 and record_id = any($2::uuid[])) a group by 1`,
      [tx.workspaceId, ids],
    );
    return records.map(({ id, kind, values, createdAt }) => ({
      id,
      kind,
      number: names.get(id)?.number ?? 0,
      name: names.get(id)?.name ?? 'without a name',
      createdAt,
      lastActivity: last.find((row) => row.id === id)?.at.toISOString() ?? createdAt,
      links: links.filter((link) => link.id === id).flatMap(({ other }) => others.get(other) ?? []),
      texts: Object.fromEntries(
        fieldsOf(destination, kind).flatMap((field) => {
          const text = showRecordValue(destination, kind, field.key, values[field.key] ?? null, values);
          return text ? [[field.key, text]] : [];
        }),
      ),
    }));
  }
}
