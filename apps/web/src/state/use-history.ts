import { useCallback, useState } from 'react';

const MOST_KEPT = 100;

interface Steps<Value> {
  value: Value;
  past: readonly Value[];
  future: readonly Value[];
}

/** A value that is edited locally, with undo and redo. */
export function useHistory<Value>(first: Value) {
  const [steps, setSteps] = useState<Steps<Value>>({ value: first, past: [], future: [] });
  const change = useCallback(
    (edit: (value: Value) => Value) =>
      setSteps(({ value, past }) => ({ value: edit(value), past: [...past, value].slice(-MOST_KEPT), future: [] })),
    [],
  );
  const undo = useCallback(
    () =>
      setSteps((now) =>
        now.past.length
          ? { value: now.past.at(-1)!, past: now.past.slice(0, -1), future: [now.value, ...now.future] }
          : now,
      ),
    [],
  );
  const redo = useCallback(
    () =>
      setSteps((now) =>
        now.future.length
          ? { value: now.future[0]!, past: [...now.past, now.value], future: now.future.slice(1) }
          : now,
      ),
    [],
  );
  return { ...steps, change, undo, redo };
}
