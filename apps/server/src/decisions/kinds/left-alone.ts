import { and, eq, inArray } from 'drizzle-orm';
import type { WorkspaceTx } from '../../platform/database/database';
import { decision } from '../tables';

/** Those that nobody left alone, or that more came to since. */
export async function notLeftAlone<One extends { id: string; at: Date }>(
  tx: WorkspaceTx,
  all: readonly One[],
): Promise<One[]> {
  if (!all.length) return [];
  const ids = all.map(({ id }) => id);
  const rows = await tx.db
    .select({ id: decision.id, at: decision.at })
    .from(decision)
    .where(and(eq(decision.workspaceId, tx.workspaceId), inArray(decision.id, ids)));
  const left = new Map(rows.map(({ id, at }) => [id, at]));
  return all.filter(({ id, at }) => at > (left.get(id) ?? new Date(0)));
}

/** Those that somebody decided or left alone at any time. */
export async function decidedAmong(tx: WorkspaceTx, ids: readonly string[]): Promise<Set<string>> {
  if (!ids.length) return new Set();
  const rows = await tx.db
    .select({ id: decision.id })
    .from(decision)
    .where(and(eq(decision.workspaceId, tx.workspaceId), inArray(decision.id, [...ids])));
  return new Set(rows.map(({ id }) => id));
}
