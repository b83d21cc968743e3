import type { DecisionTable, TableAround, TableCheck } from '@haycart/core';
import { useEffect, useRef, useState } from 'react';
import type { FromChecker, ToChecker } from './check-messages';

/** What the check of a table finds, worked out anew as it is edited; the last answer stays until the next is there. */
export function useCheck(table: DecisionTable, around: TableAround): { check: TableCheck | null; checking: boolean } {
  const worker = useRef<Worker | null>(null);
  const turn = useRef(0);
  const [answer, setAnswer] = useState<FromChecker | null>(null);
  useEffect(() => {
    const made = new Worker(new URL('./check.worker.ts', import.meta.url), { type: 'module' });
    made.addEventListener('message', ({ data }: MessageEvent<FromChecker>) => setAnswer(data));
    worker.current = made;
    return () => made.terminate();
  }, []);
  useEffect(() => {
    turn.current += 1;
    worker.current?.postMessage({ turn: turn.current, table, around } satisfies ToChecker);
  }, [table, around]);
  return { check: answer?.check ?? null, checking: answer?.turn !== turn.current };
}
