import { Injectable } from '@nestjs/common';
import type { RecordKind } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import { fieldColumns, NEVER_NULL } from './record-rows';

/** How full the columns of a kind of record are. */
export interface Fullness {
  /** How many records there are. */
  total: number;
  byField: Map<string, { count: number; lastAt: string | null }>;
}

/** Counts what records hold. */
@Injectable()
export class FullnessService {
  /** How many records of a kind there are, and for each field how many hold it and when it was last written. */
  async of(tx: WorkspaceTx, kind: RecordKind): Promise<Fullness> {
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
    return { total, byField: new Map(all.map(([key, count]) => [key, { count, lastAt: lastAt.get(key) ?? null }])) };
  }
}
