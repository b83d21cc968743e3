import type { FieldValues, RecordKind } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import type { RecordsService } from '../records/records.service';
import type { ReadRecord } from './look-through';

/** Records after an id in the order of their ids, with what they are linked to as far as it is compared. */
export async function readRecords(
  tx: WorkspaceTx,
  records: RecordsService,
  kind: RecordKind,
  after: string | null,
  most: number,
): Promise<ReadRecord[]> {
  const rows = await tx.statement<{ id: string }>(
    `ids_of_${kind}_after`,
    // A lead that was settled and one that came later are two, even of one person.
    `select id from ${kind} where workspace_id = $1 and ($2::uuid is null or id > $2) ${kind === 'lead' ? "and status = 'open'" : ''} order by id limit $3`,
    [tx.workspaceId, after, most],
  );
  return withAround(
    tx,
    records,
    kind,
    rows.map(({ id }) => id),
  );
}

/** Records by their ids, in the order of the ids, for comparing. */
export async function withAround(
  tx: WorkspaceTx,
  records: RecordsService,
  kind: RecordKind,
  ids: readonly string[],
): Promise<ReadRecord[]> {
  const own = (await records.byId(tx, kind, ids)).filter(
    (record) => kind !== 'lead' || record.values.status === 'open',
  );
  const links = kind === 'company' || kind === 'lead' ? [] : await linksFrom(tx, ids);
  const companies = new Map<string, { id: string; values: FieldValues }>();
  const ends = [...new Set(links.filter(({ kind: to }) => to === 'company').map(({ to }) => to))];
  for (const { id, values } of await records.byId(tx, 'company', ends)) companies.set(id, { id, values });
  const of = new Map<string, { to: string; kind: RecordKind }[]>();
  for (const { from, ...end } of links) of.set(from, [...(of.get(from) ?? []), end]);
  return own.map(({ id, values, createdAt }) => ({
    id,
    values,
    createdAt,
    companies: (of.get(id) ?? []).flatMap(({ to }) => companies.get(to) ?? []),
    contacts: (of.get(id) ?? []).filter((end) => end.kind === 'contact').map(({ to }) => to),
  }));
}

function linksFrom(tx: WorkspaceTx, ids: readonly string[]): Promise<{ from: string; to: string; kind: RecordKind }[]> {
  return tx.statement(
    'links_from',
    `select from_id as "from", to_id as "to", to_kind as kind from record_link where workspace_id = $1 and from_id = any($2::uuid[])`,
    [tx.workspaceId, ids],
  );
}
