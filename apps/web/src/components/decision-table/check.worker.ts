import { checkDecisions, withLibraries } from '@haycart/core';
import type { FromChecker, ToChecker } from './check-messages';

/** Checks tables beside the page, so that typing never waits for it. Only the last one asked for is worked out. */
let latest: ToChecker | null = null;

self.addEventListener('message', ({ data }: MessageEvent<ToChecker>) => {
  const idle = latest === null;
  latest = data;
  if (idle) setTimeout(() => void answer());
});

async function answer(): Promise<void> {
  const asked = latest!;
  latest = null;
  const check = await withLibraries(() => checkDecisions(asked.table, asked.around));
  self.postMessage({ turn: asked.turn, check } satisfies FromChecker);
}
