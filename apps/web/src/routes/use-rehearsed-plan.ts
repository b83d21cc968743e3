import type { KnownShape, Rehearsal } from '@haycart/api';
import type { Problem, RehearsedPlan, RouteDefinition, RouteSurroundings, Submission } from '@haycart/core';
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
  const worker = useWorker();
  const [answer, setAnswer] = useState<Exclude<FromWorker, Sought> | null>(null);
  const [sought, setSought] = useState<Sought | null>(null);
  const known = useQuery({
    queryKey: ['records', 'known', sought?.text],
    queryFn: () => call<KnownShape>('POST', '/rehearse/known', sought?.lookups),
    enabled: sought !== null && submission !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const found = known.isPlaceholderData ? undefined : known.data;
  const turn = useRef(0);

  useEffect(() => worker.listen((heard) => ('lookups' in heard ? setSought(heard) : setAnswer(heard))), [worker]);
  useEffect(() => {
    if (!submission) return;
    worker.send({ ground: { submission, surroundings } });
  }, [worker, submission, surroundings]);
  useEffect(() => {
    if (!submission) return;
    turn.current += 1;
    worker.send({ definition, turn: turn.current });
  }, [worker, definition, submission, surroundings]);
  useEffect(() => {
    if (found && sought) worker.send({ known: found, text: sought.text });
  }, [worker, found, sought]);

  const names = found?.names;
  const plan: RehearsedPlan | undefined = answer && 'plan' in answer ? answer.plan : undefined;
  return {
    plan: useMemo(() => plan && { ...plan, names: names ?? {} }, [plan, names]),
    problems: answer && 'problems' in answer ? answer.problems : [],
    error: known.error,
    planning: submission !== null && (known.isFetching || answer?.turn !== turn.current),
  };
}

type Sought = Extract<FromWorker, { lookups: unknown }>;

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
