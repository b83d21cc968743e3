import type { RouteShape } from '@haycart/api';
import type { Fill, RouteDefinition, Write } from '@haycart/core';
import { create } from 'zustand';
import { ApiError, call } from '../api/client';

/** How long typing must rest before the draft is saved, in milliseconds. */
const REST_MS = 500;

interface DraftState {
  id: string | null;
  definition: RouteDefinition | null;
  /** The route as the server last told it, with the problems of the saved draft. */
  saved: RouteShape | null;
  saving: 'saved' | 'saving' | 'failed';
  error: unknown;
  past: RouteDefinition[];
  future: RouteDefinition[];
  open: (route: RouteShape) => void;
  told: (route: RouteShape) => void;
  change: (change: (definition: RouteDefinition) => RouteDefinition) => void;
  undo: () => void;
  redo: () => void;
  save: () => Promise<void>;
}

let timer: number | undefined;

/** The draft on the route sheet: what is typed is shown at once and saved when typing rests. */
export const useDraft = create<DraftState>()((set, get) => {
  const show = (definition: RouteDefinition, rest: Partial<DraftState>) => {
    set({ definition, saving: 'saving', ...rest });
    window.clearTimeout(timer);
    timer = window.setTimeout(() => void get().save(), REST_MS);
  };
  return {
    id: null,
    definition: null,
    saved: null,
    saving: 'saved',
    error: null,
    past: [],
    future: [],
    open: (route) =>
      set({ id: route.id, definition: route.draft, saved: route, saving: 'saved', error: null, past: [], future: [] }),
    told: (route) => set({ saved: route }),
    change: (change) => {
      const { definition, past } = get();
      if (definition) show(change(definition), { past: [...past.slice(-99), definition], future: [] });
    },
    undo: () => {
      const { definition, past, future } = get();
      const before = past[past.length - 1];
      if (definition && before) show(before, { past: past.slice(0, -1), future: [definition, ...future] });
    },
    redo: () => {
      const { definition, past, future } = get();
      const [next, ...rest] = future;
      if (definition && next) show(next, { past: [...past, definition], future: rest });
    },
    save: async () => {
      window.clearTimeout(timer);
      const { id, definition, saving } = get();
      if (!id || !definition || saving === 'saved') return;
      try {
        const saved = await call<RouteShape>('PUT', `/routes/${id}/draft`, definition);
        if (get().id === id)
          set({ saved, error: null, ...(get().definition === definition ? { saving: 'saved' } : {}) });
      } catch (error) {
        if (get().id !== id) return;
        set({ saving: 'failed', error });
        // Nothing typed is lost: when the server only did not answer, it is saved as soon as it does.
        if (error instanceof ApiError && error.problem.status !== 422)
          timer = window.setTimeout(() => void get().save(), 3_000);
      }
    },
  };
});

/** Changes one write of the draft. */
export function changeWrite(as: string, change: (write: Write) => Write): void {
  useDraft.getState().change((definition) => ({
    ...definition,
    writes: definition.writes.map((write) => (write.as === as ? change(write) : write)),
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
