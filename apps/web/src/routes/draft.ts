import type { RouteShape } from '@haycart/api';
import { mergeDrafts, type DecisionTable, type Fill, type RouteDefinition, type Write } from '@haycart/core';
import { toast } from 'sonner';
import { call } from '../api/client';
import { createDraft } from '../state/saved-draft';

/** The draft on the route sheet. */
export const useDraft = createDraft<RouteDefinition, RouteShape>(
  (id, definition, { revision }) =>
    call<RouteShape>('PUT', `/routes/${id}/draft`, definition, { 'if-match': `"${revision}"` }),
  async (id, mine, base) => {
    const saved = await call<RouteShape>('GET', `/routes/${id}`);
    const { draft, clashes } = mergeDrafts(base.draft, mine, saved.draft);
    toast(`${saved.draftSavedBy ?? 'Somebody else'} changed this draft meanwhile; both are kept.`, {
      description: clashes.join(' '),
    });
    return { value: draft, saved };
  },
);

const NO_TABLES: readonly DecisionTable[] = [];

/** The decision tables of the draft. */
export function useTables(): readonly DecisionTable[] {
  return useDraft(({ value }) => value?.decisions) ?? NO_TABLES;
}

/** Changes one write of the draft. */
export function changeWrite(as: string, change: (write: Write) => Write): void {
  useDraft.getState().change((definition) => ({
    ...definition,
    writes: definition.writes.map((write) => (write.as === as ? change(write) : write)),
  }));
}

/** Adds fields to a write that nothing feeds yet. */
export function feedFields(as: string, fields: readonly string[]): void {
  changeWrite(as, (write) => ({
    ...write,
    fills: [...write.fills, ...fields.map((field): Fill => ({ field, value: { parts: [] } }))],
  }));
}

/** Changes one fill of a write, adds it, or with `null` takes it away. */
export function changeFill(as: string, field: string, change: (fill: Fill) => Fill | null): void {
  changeWrite(as, (write) => {
    const known = write.fills.find((fill) => fill.field === field);
    const next = change(known ?? { field, value: { parts: [] } });
    const fills = known
      ? write.fills.flatMap((fill) => (fill.field === field ? (next ?? []) : fill))
      : next
        ? [...write.fills, next]
        : write.fills;
    return { ...write, fills };
  });
}
