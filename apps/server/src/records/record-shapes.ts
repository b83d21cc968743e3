import { Injectable } from '@nestjs/common';
import { RECORD_KINDS, type RecordKind } from '@haycart/core';
import type { AnswerClock, RecordLinkShape, RecordShape } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { columnsToValues, recordName, type RecordRow } from './record-rows';

export const PLURALS: Record<RecordKind, string> = {
  contact: 'contacts',
  company: 'companies',
  lead: 'leads',
  deal: 'deals',
};

/** The links of the records `$2`, with the names of the other ends, latest first. */
export const LINKS_SQL = `with link as (
         select from_id as id, to_id as other, to_kind as kind, at, true as outgoing from record_link where workspace_id = $1 and from_id = any($2::uuid[])
         union all select to_id, from_id, from_kind, at, false from record_link where workspace_id = $1 and to_id = any($2::uuid[])
         order by at desc limit 5000)
       select l.id as own, l.other as id, l.kind, l.outgoing, n.number::int as number, n.name from link l join lateral (
         select c.number, coalesce(c.full_name, c.email, c.phone, 'without a name') as name from contact c where l.kind = 'contact' and c.workspace_id = $1 and c.id = l.other
         union all select c.number, c.name from company c where l.kind = 'company' and c.workspace_id = $1 and c.id = l.other
         union all select c.number, c.name from lead c where l.kind = 'lead' and c.workspace_id = $1 and c.id = l.other
         union all select c.number, c.name from deal c where l.kind = 'deal' and c.workspace_id = $1 and c.id = l.other) n on true
       order by l.at desc, l.other`;

/** Turns rows of records into what the API answers, with what they are linked to. */
@Injectable()
export class RecordShapes {
  async of(tx: WorkspaceTx, kind: RecordKind, rows: readonly RecordRow[]): Promise<RecordShape[]> {
    const links = await this.#links(
      tx,
      rows.map(({ id }) => id),
    );
    return rows.map((row) => recordShape(kind, row, links.get(row.id) ?? []));
  }

  /** Links of records in both directions, with the names of the other ends, in one round trip. */
  async #links(tx: WorkspaceTx, ids: readonly string[]): Promise<Map<string, LinkRow[]>> {
    if (!ids.length) return new Map();
    const rows = await tx.statement<LinkRow>('links_with_names', LINKS_SQL, [tx.workspaceId, ids]);
    const links = new Map<string, LinkRow[]>();
    for (const row of rows) {
      const own = links.get(row.own);
      if (own) own.push(row);
      else links.set(row.own, [row]);
    }
    return links;
  }
}

export interface LinkRow extends RecordLinkShape {
  own: string;
  outgoing: boolean;
}

/** A row of a record with its links, as the API answers it. */
export function recordShape(kind: RecordKind, row: RecordRow, links: readonly LinkRow[]): RecordShape {
  const values = columnsToValues(kind, row);
  const grouped: RecordShape['links'] = {};
  for (const other of RECORD_KINDS) {
    const found = links.filter((link) => link.kind === other).map(linkShape);
    if (found.length) grouped[PLURALS[other]] = found;
  }
  // The company that it belongs to: for a company the one above it, never those beneath.
  const company = links.find((link) => link.kind === 'company' && (kind !== 'company' || link.outgoing));
  if (company) grouped.company = [linkShape(company)];
  return {
    id: row.id,
    kind,
    number: Number(row.number),
    name: recordName(kind, values),
    values,
    links: grouped,
    owner: (row.owner as string | null) ?? null,
    tags: row.tags as string[],
    createdAt: row.created_at.toISOString(),
    updatedAt: row.updated_at.toISOString(),
    ...(row.answer ? { answer: row.answer as AnswerClock } : {}),
  };
}

function linkShape({ id, kind, number, name }: LinkRow): RecordLinkShape {
  return { id, kind, number, name };
}
