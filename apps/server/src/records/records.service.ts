import { Inject, Injectable } from '@nestjs/common';
import {
  changesBetween,
  emptyDiff,
  fieldOf,
  KnownRecords,
  normalEmail,
  normalPhone,
  RECORD_KINDS,
  splitByRecord,
  squashAll,
  type Destination,
  type IdentityKey,
  type Plan,
  type RecordKind,
  type RecordsDiff,
} from '@haycart/core';
import type { HistoryEntry, Page, RecordLinkShape, RecordShape, TouchShape } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { cursorTime, isId, pageOf, type Cursor } from '../platform/paging';
import { KnownRecordsStore } from './known-records.store';
import { columnsToValues, recordName, type RecordRow } from './record-rows';
import { RecordWriter, type CausedDiff } from './record-writer';

/** What a list of records is narrowed to. */
export interface RecordFilter {
  email?: string;
  phone?: string;
  q?: string;
}

/** Contacts, companies, leads and deals: reading them, and writing what was planned. */
@Injectable()
export class RecordsService {
  constructor(
    @Inject(KnownRecordsStore) private readonly known: KnownRecordsStore,
    @Inject(RecordWriter) private readonly writer: RecordWriter,
  ) {}

  /** Locks the identity keys and answers all that is known of them; for planning that is then written. */
  async lockAndLoad(tx: WorkspaceTx, keys: readonly IdentityKey[], deals: boolean): Promise<KnownRecords> {
    await this.known.lock(tx, keys);
    return this.known.load(tx, keys, deals, 'lock');
  }

  /** The same without a lock; for planning that is only shown. */
  look(tx: WorkspaceTx, keys: readonly IdentityKey[], deals: boolean): Promise<KnownRecords> {
    return this.known.load(tx, keys, deals, 'look');
  }

  write(tx: WorkspaceTx, diffs: readonly CausedDiff[], known: KnownRecords): Promise<void> {
    return this.writer.write(tx, diffs, known);
  }

  async list(
    tx: WorkspaceTx,
    kind: RecordKind,
    filter: RecordFilter,
    defaultCountry: string,
    limit: number,
    after: Cursor | null,
  ): Promise<Page<RecordShape>> {
    const email = filter.email === undefined ? null : emailKey(filter.email);
    const phone = filter.phone === undefined ? null : phoneKey(filter.phone, defaultCountry);
    const name =
      kind === 'contact'
        ? `coalesce(r.full_name, '') || ' ' || coalesce(r.email, '')`
        : kind === 'company'
          ? `r.name || ' ' || coalesce(r.domain, '')`
          : 'r.name';
    const where = `where r.workspace_id = $1
      and ($2::text is null or exists (select 1 from identity_key k where k.workspace_id = r.workspace_id and k.record_kind = '${kind}' and k.key_kind = 'email' and k.value = $2 and k.record_id = r.id))
      and ($3::text is null or exists (select 1 from identity_key k where k.workspace_id = r.workspace_id and k.record_kind = '${kind}' and k.key_kind = 'phone' and k.value = $3 and k.record_id = r.id))
      and ($4::text is null or strpos(lower(${name}), lower($4)) > 0)`;
    const values = [tx.workspaceId, email, phone, filter.q?.trim() || null];
    const rows = await tx.statement<RecordRow & { at: string }>(
      `${kind}_list`,
      `select r.*, ${cursorTime('r.updated_at')} as at from ${kind} r ${where} and ($5::timestamptz is null or (r.updated_at, r.id) < ($5, $6::uuid))
       order by r.updated_at desc, r.id desc limit $7`,
      [...values, after?.at ?? null, after?.id ?? null, limit + 1],
    );
    const [count] = await tx.statement<{ total: number }>(
      `${kind}_total`,
      `select count(*)::int as total from ${kind} r ${where}`,
      values,
    );
    const links = await this.#links(
      tx,
      rows.map(({ id }) => id),
    );
    return pageOf(
      rows,
      limit,
      (row) => shape(kind, row, links),
      ({ at, id }) => ({ at, id }),
      count!.total,
    );
  }

  async one(tx: WorkspaceTx, kind: RecordKind, id: string): Promise<RecordShape> {
    const [row] = isId(id)
      ? await tx.statement<RecordRow>(
          `${kind}_one`,
          `select r.* from ${kind} r where r.workspace_id = $1 and r.id = $2`,
          [tx.workspaceId, id],
        )
      : [];
    if (!row) throw new ProblemError('not-found', `There is no such ${kind}.`);
    return shape(kind, row, await this.#links(tx, [id]));
  }

  /** What happened to a record, latest first; the trace of each value comes with the run that wrote it. */
  async history(tx: WorkspaceTx, kind: RecordKind, id: string, destination: Destination): Promise<HistoryEntry[]> {
    await this.one(tx, kind, id);
    const rows = await tx.statement<HistoryRow>(
      'history',
      `select c.id, c.at, c.cause_kind, c.cause_id, c.diff, r.plan, r.submission_id, coalesce(t.name, p.name, '') as label
       from record_change c
       left join run r on r.workspace_id = c.workspace_id and r.id = c.cause_id and c.cause_kind = 'run'
       left join route t on t.workspace_id = r.workspace_id and t.id = r.route_id
       left join person p on p.workspace_id = c.workspace_id and p.id = c.cause_id and c.cause_kind = 'person'
       where c.workspace_id = $1 and c.record_id = $2 order by c.at desc, c.id desc limit 500`,
      [tx.workspaceId, id],
    );
    return rows.map((row) => historyEntry(row, kind, id, destination));
  }

  async touches(tx: WorkspaceTx, id: string): Promise<TouchShape[]> {
    const rows = await tx.statement<Omit<TouchShape, 'at'> & { at: Date }>(
      'touches_of',
      'select at, channel, source, medium, campaign, page from touch where workspace_id = $1 and record_id = $2 order by at, id limit 500',
      [tx.workspaceId, id],
    );
    return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
  }

  /** Everything that one cause did to records, as one diff. */
  async diffOf(tx: WorkspaceTx, causeId: string): Promise<RecordsDiff> {
    const rows = await tx.statement<{ diff: RecordsDiff }>(
      'diff_of',
      'select diff from record_change where workspace_id = $1 and cause_id = $2 order by id',
      [tx.workspaceId, causeId],
    );
    return squashAll(rows.map(({ diff }) => diff));
  }

  /** Kind, number and name of records by id. */
  async named(tx: WorkspaceTx, ids: readonly string[]): Promise<Map<string, RecordLinkShape>> {
    if (!ids.length) return new Map();
    const rows = await tx.statement<RecordLinkShape & { number: string }>(
      'named',
      `select id, 'contact' as kind, number, coalesce(full_name, email, phone, 'without a name') as name from contact where workspace_id = $1 and id = any($2::uuid[])
       union all select id, 'company', number, name from company where workspace_id = $1 and id = any($2::uuid[])
       union all select id, 'lead', number, name from lead where workspace_id = $1 and id = any($2::uuid[])
       union all select id, 'deal', number, name from deal where workspace_id = $1 and id = any($2::uuid[])`,
      [tx.workspaceId, ids],
    );
    return new Map(rows.map((row) => [row.id, { ...row, number: Number(row.number) }]));
  }

  async #links(tx: WorkspaceTx, ids: readonly string[]): Promise<Map<string, RecordLinkShape[]>> {
    if (!ids.length) return new Map();
    const rows = await tx.statement<{ id: string; other: string }>(
      'links_with',
      `select from_id as id, to_id as other, at from record_link where workspace_id = $1 and from_id = any($2::uuid[])
       union all select to_id, from_id, at from record_link where workspace_id = $1 and to_id = any($2::uuid[]) order by at desc limit 5000`,
      [tx.workspaceId, ids],
    );
    const names = await this.named(tx, [...new Set(rows.map(({ other }) => other))]);
    const links = new Map<string, RecordLinkShape[]>();
    for (const { id, other } of rows) {
      const name = names.get(other);
      if (name) links.set(id, [...(links.get(id) ?? []), name]);
    }
    return links;
  }
}

interface HistoryRow {
  id: string;
  at: Date;
  cause_kind: HistoryEntry['cause']['kind'];
  cause_id: string;
  diff: RecordsDiff;
  plan: Omit<Plan, 'diff'> | null;
  submission_id: string | null;
  label: string;
}

function historyEntry(row: HistoryRow, kind: RecordKind, id: string, destination: Destination): HistoryEntry {
  const part = splitByRecord(row.diff).get(id) ?? emptyDiff();
  const fields = part.created[id] ? changesBetween({}, part.created[id].values) : (part.changed[id]?.fields ?? {});
  const traces = row.plan?.writes.find((write) => write.id === id)?.fields ?? [];
  return {
    id: row.id,
    at: row.at.toISOString(),
    cause: {
      kind: row.cause_kind,
      id: row.cause_id,
      label: row.label,
      ...(row.submission_id ? { submission: row.submission_id } : {}),
    },
    diff: row.diff,
    values: Object.entries(fields).map(([field, { before, after }]) => ({
      field,
      label: fieldOf(destination, kind, field)?.label ?? field,
      before,
      after,
      trace: traces.find((trace) => trace.field === field)?.trace ?? null,
    })),
  };
}

const PLURALS: Record<RecordKind, string> = { contact: 'contacts', company: 'companies', lead: 'leads', deal: 'deals' };

function shape(kind: RecordKind, row: RecordRow, links: ReadonlyMap<string, RecordLinkShape[]>): RecordShape {
  const values = columnsToValues(kind, row);
  const grouped: RecordShape['links'] = {};
  for (const other of RECORD_KINDS) {
    const found = (links.get(row.id) ?? []).filter((link) => link.kind === other);
    if (found.length) grouped[PLURALS[other]] = found;
  }
  if (kind !== 'company' && grouped.companies) grouped.company = grouped.companies.slice(0, 1);
  return {
    id: row.id,
    kind,
    number: Number(row.number),
    name: recordName(kind, values),
    values,
    links: grouped,
    owner: (row.owner_id as string | null) ?? null,
    tags: row.tags as string[],
    createdAt: row.created_at.toISOString(),
    updatedAt: row.updated_at.toISOString(),
  };
}

function emailKey(text: string): string {
  const result = normalEmail(text);
  return result.ok ? result.email : text;
}

function phoneKey(text: string, country: string): string {
  const result = normalPhone(text.startsWith(' ') ? `+${text.trim()}` : text, country);
  return result.ok ? result.phone : text;
}
