import { create } from 'zustand';
import { ApiError } from '../api/client';

/** How long typing must rest before the draft is saved, in milliseconds. */
const REST_MS = 500;
/** How long to wait before a save that got no answer is tried again. */
const AGAIN_MS = 3_000;
const MOST_KEPT = 100;

/** A draft as it is edited: what is typed is shown at once, saved when typing rests, and can be undone. */
export interface SavedDraft<Value, Saved> {
  id: string | null;
  value: Value | null;
  /** What the server last told. */
  saved: Saved | null;
  saving: 'saved' | 'saving' | 'failed';
  error: unknown;
  past: Value[];
  future: Value[];
  open: (id: string, value: Value, saved: Saved) => void;
  told: (saved: Saved) => void;
  /** Takes over what somebody else saved, unless something of one’s own is not saved yet. Answers whether it did. */
  takeOver: (value: Value, saved: Saved) => boolean;
  change: (change: (value: Value) => Value) => void;
  undo: () => void;
  redo: () => void;
  /** Saves what is not saved yet, and answers when it is. */
  save: () => Promise<void>;
}

/**
 * Brings what is being edited together with what somebody else saved meanwhile.
 *
 * @param base What both were made of.
 */
export type Reconcile<Value, Saved> = (
  id: string,
  value: Value,
  base: Saved,
) => Promise<{ value: Value; saved: Saved }>;

/**
 * A store of one draft. Its saves go to the server one after the other, each upon what the one before answered. Where
 * somebody else saved meanwhile, and both can be brought together, that is saved.
 */
export function createDraft<Value, Saved>(
  put: (id: string, value: Value, saved: Saved) => Promise<Saved>,
  reconcile?: Reconcile<Value, Saved>,
) {
  let timer: number | undefined;
  let running: Promise<void> = Promise.resolve();
  /** What the server last told of each draft, also of one that is being closed while its last change is saved. */
  const latest = new Map<string, Saved>();
  return create<SavedDraft<Value, Saved>>()((set, get) => {
    const show = (value: Value, rest: Partial<SavedDraft<Value, Saved>>) => {
      set({ value, saving: 'saving', ...rest });
      window.clearTimeout(timer);
      timer = window.setTimeout(() => void get().save(), REST_MS);
    };
    const saveNow = async (id: string, value: Value) => {
      try {
        const told = await put(id, value, latest.get(id)!);
        latest.set(id, told);
        if (get().id === id) set({ saved: told, error: null, ...(get().value === value ? { saving: 'saved' } : {}) });
      } catch (error) {
        if (get().id !== id) return;
        if (reconcile && error instanceof ApiError && error.problem.code === 'changed-meanwhile') {
          const both = await reconcile(id, get().value!, latest.get(id)!);
          latest.set(id, both.saved);
          if (get().id === id) show(both.value, { saved: both.saved });
          return;
        }
        set({ saving: 'failed', error });
        // Nothing typed is lost: when the server only did not answer, it is saved as soon as it does.
        if (error instanceof ApiError && error.problem.status !== 422 && error.problem.status !== 409)
          timer = window.setTimeout(() => void get().save(), AGAIN_MS);
      }
    };
    return {
      id: null,
      value: null,
      saved: null,
      saving: 'saved',
      error: null,
      past: [],
      future: [],
      open: (id, value, saved) => {
        latest.set(id, saved);
        set({ id, value, saved, saving: 'saved', error: null, past: [], future: [] });
      },
      told: (saved) => {
        const { id } = get();
        if (id) latest.set(id, saved);
        set({ saved });
      },
      takeOver: (value, saved) => {
        const { id, saving } = get();
        if (!id || saving !== 'saved') return false;
        latest.set(id, saved);
        set({ value, saved, past: [], future: [] });
        return true;
      },
      change: (change) => {
        const { value, past } = get();
        if (value !== null) show(change(value), { past: [...past.slice(1 - MOST_KEPT), value], future: [] });
      },
      undo: () => {
        const { value, past, future } = get();
        const before = past[past.length - 1];
        if (value !== null && before !== undefined)
          show(before, { past: past.slice(0, -1), future: [value, ...future] });
      },
      redo: () => {
        const { value, past, future } = get();
        const [next, ...rest] = future;
        if (value !== null && next !== undefined) show(next, { past: [...past, value], future: rest });
      },
      save: () => {
        window.clearTimeout(timer);
        const { id, value, saving } = get();
        if (id && value !== null && saving !== 'saved') running = running.then(() => saveNow(id, value));
        return running;
      },
    };
  });
}
