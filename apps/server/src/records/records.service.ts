import { Inject, Injectable } from '@nestjs/common';
import {
  changesBetween,
  emptyDiff,
  fieldOf,
  isEmptyDiff,
  KnownRecords,
  normalEmail,
  normalPhone,
  RECORD_KINDS,
  reverseDiff,
  splitByRecord,
  squashAll,
  stageOf,
  stageValues,
  stillInForce,
  type Destination,
  type FieldValues,
  type IdentityKey,
  type KnownRecord,
  type Pipeline,
  type PlaceKeys,
  type Plan,
  type RecordKind,
  type RecordsDiff,
  type Stage,
} from '@haycart/core';
import type { HistoryEntry, Page, RecordLinkShape, RecordShape, TouchShape } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { ProblemError } from '../platform/errors/problem-error';
import { cursorTime, isId, pageOf, type Cursor } from '../platform/paging';
import { PipelinesService } from '../pipelines/pipelines.service';
import { KnownRecordsStore } from './known-records.store';
import { columnsToValues, fieldColumns, recordName, type RecordRow } from './record-rows';
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
    @Inject(PipelinesService) private readonly pipelines: PipelinesService,
    @Inject(Events) private readonly events: Events,
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

  /** How many records of a kind there are, and for each field how many hold it and when it was last written. */
  async filled(
    tx: WorkspaceTx,
    kind: RecordKind,
  ): Promise<{ total: number; byField: Map<string, { count: number; lastAt: string | null }> }> {
    const builtIn = fieldColumns(kind).filter((column) => !column.endsWith('_currency'));
    const [row] = await tx.statement<Record<string, number>>(
      `${kind}_filled`,
      `select count(*)::int as total, ${builtIn.map((column) => `count(${column})::int as "${column.replace(/_amount$/, '')}"`).join(', ')}
       from ${kind} where workspace_id = $1`,
      [tx.workspaceId],
    );
    const { total = 0, ...counts } = row ?? {};
    const custom = await tx.statement<{ key: string; count: number }>(
      `${kind}_filled_custom`,
      `select k as key, count(*)::int as count from ${kind} r, jsonb_object_keys(r.custom) k where r.workspace_id = $1 group by 1`,
      [tx.workspaceId],
    );
    const last = await tx.statement<{ key: string; at: string }>(
      `${kind}_last_written`,
      `select w.key, max(w.value) as at from ${kind} r, jsonb_each_text(r.written_at) w where r.workspace_id = $1 group by 1`,
      [tx.workspaceId],
    );
    const lastAt = new Map(last.map(({ key, at }) => [key, at]));
    const all = [...Object.entries(counts), ...custom.map(({ key, count }) => [key, count] as const)];
    return { total, byField: new Map(all.map(([key, count]) => [key, { count, lastAt: lastAt.get(key) ?? null }])) };
  }

  /** How many records stand in each stage of each pipeline. */
  async countByPlace(tx: WorkspaceTx): Promise<(PlaceKeys & { count: number })[]> {
    return tx.statement(
      'count_by_place',
      'select pipeline, stage, count(*)::int as count from deal where workspace_id = $1 group by 1, 2',
      [tx.workspaceId],
    );
  }

  /** Moves a deal to another stage of its pipeline, by a person. */
  async moveDeal(tx: WorkspaceTx, id: string, stageKey: string, by: string, at: string): Promise<void> {
    const [deal] = isId(id) ? await this.known.byId(tx, 'deal', [id], 'lock') : [];
    if (!deal) throw new ProblemError('not-found', 'There is no such deal.');
    const pipeline = await this.pipelines.one(tx, String(deal.values.pipeline));
    const stage = stageOf(pipeline, stageKey);
    if (!stage)
      throw new ProblemError('refused', `${pipeline.name} has no stage “${stageKey}”.`, [
        { at: '/stage', code: 'unknown-stage', message: 'Choose a stage of the pipeline.' },
      ]);
    if (deal.values.stage === stage.key) return;
    const { closed_at: _, ...open } = deal.values;
    await this.#change(tx, [deal], () => ({ ...open, ...stageValues(pipeline, stage, at) }), by, at);
  }

  /** Moves all that stands in some stages of a pipeline to a stage, by a person. Answers what changed. */
  async moveAll(
    tx: WorkspaceTx,
    from: readonly PlaceKeys[],
    to: { pipeline: Pipeline; stage: Stage },
    by: string,
    at: string,
  ): Promise<RecordsDiff> {
    const deals = await this.#dealsIn(tx, from);
    const placed = stageValues(to.pipeline, to.stage, at);
    return this.#change(tx, deals, ({ closed_at: _, ...values }) => ({ ...values, ...placed }), by, at);
  }

  /** Lets the status of all that stands in a stage follow the stage's state. */
  async followState(tx: WorkspaceTx, pipeline: Pipeline, stage: Stage, by: string, at: string): Promise<void> {
    const deals = await this.#dealsIn(tx, [{ pipeline: pipeline.key, stage: stage.key }]);
    const closed: FieldValues = stage.state === 'open' ? {} : { closed_at: at };
    await this.#change(
      tx,
      deals,
      ({ closed_at: _, ...values }) => ({ ...values, status: stage.state, ...closed }),
      by,
      at,
    );
  }

  /** Takes back what still holds of a diff: what was changed since stays. Answers how many records went back. */
  async takeBack(tx: WorkspaceTx, diff: RecordsDiff, by: string, at: string): Promise<number> {
    const deals = await this.known.byId(tx, 'deal', Object.keys(diff.changed), 'lock');
    const values = new Map(deals.map((deal) => [deal.id, deal.values]));
    // A deal goes back as a whole: one that has moved on since keeps its stage and the time in it.
    const held = stillInForce(diff, (id) => values.get(id));
    const whole = Object.entries(held.changed).filter(
      ([id, { fields }]) => Object.keys(fields).length === Object.keys(diff.changed[id]!.fields).length,
    );
    const back = reverseDiff({ ...emptyDiff(), changed: Object.fromEntries(whole) });
    await this.#write(tx, deals, back, by, at);
    return whole.length;
  }

  async #dealsIn(tx: WorkspaceTx, places: readonly PlaceKeys[]): Promise<KnownRecord[]> {
    const rows = await tx.statement<{ id: string }>(
      'deals_in',
      `select d.id from deal d join unnest($2::text[], $3::text[]) p (pipeline, stage) on d.pipeline = p.pipeline and d.stage = p.stage where d.workspace_id = $1`,
      [tx.workspaceId, places.map(({ pipeline }) => pipeline), places.map(({ stage }) => stage)],
    );
    return this.known.byId(
      tx,
      'deal',
      rows.map(({ id }) => id),
      'lock',
    );
  }

  async #change(
    tx: WorkspaceTx,
    deals: readonly KnownRecord[],
    after: (values: FieldValues) => FieldValues,
    by: string,
    at: string,
  ): Promise<RecordsDiff> {
    const diff = emptyDiff();
    for (const { id, values } of deals) {
      const fields = changesBetween(values, after(values));
      if (Object.keys(fields).length) diff.changed[id] = { kind: 'deal', fields };
    }
    await this.#write(tx, deals, diff, by, at);
    return diff;
  }

  async #write(
    tx: WorkspaceTx,
    deals: readonly KnownRecord[],
    diff: RecordsDiff,
    by: string,
    at: string,
  ): Promise<void> {
    if (isEmptyDiff(diff)) return;
    const known = new KnownRecords(deals);
    known.learn(diff, at);
    await this.writer.write(tx, [{ diff, at, cause: { kind: 'person', id: by } }], known);
    await this.events.tell(tx, 'records', 'pipelines');
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
