import type { JourneyPaths } from '@haycart/api';
import type { DataDriven } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { journeyPathsQuery, type SourcesWish } from '../api/queries';
import type { FromShares, ToShares } from './data-driven-messages';

/** The channel shares by removal effect, computed in a worker when wanted. */
export function useDataDriven(wish: SourcesWish, isWanted: boolean) {
  const paths = useQuery({ ...journeyPathsQuery(wish), enabled: isWanted });
  const [percent, setPercent] = useState(0);
  const [answer, setAnswer] = useState<{ of: JourneyPaths; result: DataDriven } | null>(null);
  const data = isWanted ? paths.data : undefined;
  useEffect(() => {
    if (!data) return;
    setPercent(0);
    const worker = new Worker(new URL('./data-driven.worker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('message', ({ data: told }: MessageEvent<FromShares>) => {
      if ('percent' in told) setPercent(told.percent);
      else setAnswer({ of: data, result: told.result });
    });
    worker.postMessage({ paths: data.paths } satisfies ToShares);
    return () => worker.terminate();
  }, [data]);
  return {
    error: paths.error,
    percent,
    result: answer && answer.of === data ? answer.result : null,
    more: data?.more ?? 0,
  };
}
