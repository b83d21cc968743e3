import type { KnownShape, Rehearsal } from '@haycart/api';
import {
  lookupsFor,
  lookupsText,
  type Lookups,
  type Problem,
  type RehearsedPlan,
  type RouteDefinition,
  type RouteSurroundings,
  type Submission,
} from '@haycart/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { call } from '../api/client';
import type { FromWorker, ToWorker } from './rehearsal-messages';

/** What became of a rehearsal: a plan, what stands in its way, or nothing yet. */
export interface Rehearsed {
  plan: Rehearsal | undefined;
  problems: readonly Problem[];
  error: unknown;
  planning: boolean;
}

/**
 * Plans a definition with a submission, in a worker and with the core itself. Only what must be known of existing records
 * is asked of the server, and again only when it is looked for by something else.
 */
export function useRehearsedPlan(
  definition: RouteDefinition,
  submission: Submission | null,
  surroundings: RouteSurroundings,
): Rehearsed {
  const lookups = useMemo((): Lookups | null => {
    if (!submission) return null;
    const { keys, deals, blocks } = lookupsFor(definition, submission, surroundings.destination);
    return { keys, deals, blocks };
  }, [definition, submission, surroundings]);
  const known = useQuery({
    queryKey: ['records', 'known', lookups && lookupsText(lookups)],
    queryFn: () => call<KnownShape>('POST', '/rehearse/known', lookups),
    enabled: lookups !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const found = known.isPlaceholderData ? undefined : known.data;
  const worker = useWorker();
  const [answer, setAnswer] = useState<FromWorker | null>(null);
  const turn = useRef(0);

  useEffect(() => worker.listen(setAnswer), [worker]);
  useEffect(() => {
    if (submission && found) worker.send({ ground: { submission, known: found, surroundings } });
  }, [worker, submission, found, surroundings]);
  useEffect(() => {
    if (!submission || !found) return;
    turn.current += 1;
    worker.send({ definition, turn: turn.current });
  }, [worker, definition, submission, found, surroundings]);

  const names = found?.names;
  const plan: RehearsedPlan | undefined = answer && 'plan' in answer ? answer.plan : undefined;
  return {
    plan: useMemo(() => plan && { ...plan, names: names ?? {} }, [plan, names]),
    problems: answer && 'problems' in answer ? answer.problems : [],
    error: known.error,
    planning: submission !== null && (known.isFetching || answer?.turn !== turn.current),
  };
}

interface RehearsalWorker {
  send: (message: ToWorker) => void;
  /** Hears the answers; answers what stops it. */
  listen: (hear: (answer: FromWorker) => void) => () => void;
}

/** One worker for as long as the page is shown; made with the first message. */
function useWorker(): RehearsalWorker {
  const made = useRef<Worker | null>(null);
  const hearers = useRef(new Set<(answer: FromWorker) => void>());
  useEffect(
    () => () => {
      made.current?.terminate();
      made.current = null;
    },
    [],
  );
  return useMemo(
    () => ({
      send: (message) => {
        if (!made.current) {
          made.current = new Worker(new URL('./rehearsal.worker.ts', import.meta.url), { type: 'module' });
          made.current.addEventListener('message', ({ data }: MessageEvent<FromWorker>) =>
            hearers.current.forEach((hear) => hear(data)),
          );
        }
        made.current.postMessage(message);
      },
      listen: (hear) => {
        hearers.current.add(hear);
        return () => hearers.current.delete(hear);
      },
    }),
    [],
  );
}
