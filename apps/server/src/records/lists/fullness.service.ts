import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { RECORD_KINDS, type RecordKind } from '@haycart/core';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { AfterChanges } from '../../platform/jobs/after-changes';
import { NEVER_NULL } from '../field-columns';
import { fieldColumns } from '../record-rows';

/** How full the columns of a kind of record are. */
export interface Fullness {
  /** How many records there are. */
  total: number;
  byField: Map<string, { count: number; lastAt: string | null }>;
  /** When that was counted; null: just now. */
  countedAt: Date | null;
}

/** More records than these are not counted for each that asks. */
const FEW = 5_000;

/** Counts what records hold: at once where they are few, and else a while after they changed, by a job. */
@Injectable()
export class FullnessService implements OnModuleInit {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AfterChanges) private readonly after: AfterChanges,
  ) {}

  onModuleInit(): void {
    this.after.follow({
      task: 'count-fullness',
      topic: 'records',
      restSeconds: 300,
      work: (workspaceId, stopping) => this.#countMany(workspaceId, stopping),
    });
  }

  /** How many records of a kind there are, and for each field how many hold it and when it was last written. */
  async of(tx: WorkspaceTx, kind: RecordKind): Promise<Fullness> {
    if (await this.#areFew(tx, kind)) return this.#counted(tx, kind);
    const [kept] = await tx.statement<{ total: number; by_field: Record<string, never>; counted_at: Date }>(
      'kept_fullness',
      'select total, by_field, counted_at from record_fullness where workspace_id = $1 and record_kind = $2',
      [tx.workspaceId, kind],
    );
    if (!kept) return this.#keep(tx, kind);
    return { total: kept.total, byField: new Map(Object.entries(kept.by_field)), countedAt: kept.counted_at };
  }

  async #countMany(workspaceId: string, stopping: AbortSignal): Promise<void> {
    for (const kind of RECORD_KINDS) {
      stopping.throwIfAborted();
      await this.database.inWorkspace(workspaceId, async (tx) => {
        if (!(await this.#areFew(tx, kind))) await this.#keep(tx, kind);
      });
    }
  }

  async #areFew(tx: WorkspaceTx, kind: RecordKind): Promise<boolean> {
    const [row] = await tx.statement<{ n: number }>(
      `${kind}_are_few`,
      `select count(*)::int as n from (select 1 from ${kind} where workspace_id = $1 limit $2) r`,
      [tx.workspaceId, FEW + 1],
    );
    return row!.n <= FEW;
  }

  async #keep(tx: WorkspaceTx, kind: RecordKind): Promise<Fullness> {
    const counted = await this.#counted(tx, kind);
    await tx.statement(
      'keep_fullness',
      `insert into record_fullness (workspace_id, record_kind, total, by_field, counted_at) values ($1, $2, $3, $4, now())
       on conflict (workspace_id, record_kind) do update set total = excluded.total, by_field = excluded.by_field, counted_at = excluded.counted_at`,
      [tx.workspaceId, kind, counted.total, JSON.stringify(Object.fromEntries(counted.byField))],
    );
    return counted;
  }

  async #counted(tx: WorkspaceTx, kind: RecordKind): Promise<Fullness> {
    const builtIn = fieldColumns(kind).filter((column) => !column.endsWith('_currency'));
    const [row] = await tx.statement<Record<string, number>>(
      `${kind}_filled`,
      `select count(*)::int as total, ${builtIn.map((column) => `count(${NEVER_NULL.has(column) ? `nullif(${column}, '{}')` : column})::int as "${column.replace(/_amount$/, '')}"`).join(', ')}
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
    return {
      total,
      byField: new Map(all.map(([key, count]) => [key, { count, lastAt: lastAt.get(key) ?? null }])),
      countedAt: null,
    };
  }
}
