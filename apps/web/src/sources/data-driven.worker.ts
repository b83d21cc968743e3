import { dataDriven } from '@haycart/core';
import type { FromShares, ToShares } from './data-driven-messages';

/** The number of bootstrap resamples. */
const RESAMPLES = 200;

/** Computes the channel shares in a worker, and reports progress in percent. */
self.addEventListener('message', ({ data: { paths } }: MessageEvent<ToShares>) => {
  const tell = (message: FromShares) => self.postMessage(message);
  let told = 0;
  const result = dataDriven(paths, RESAMPLES, randomFrom(20_260_301), (done) => {
    const percent = Math.floor((done / RESAMPLES) * 100);
    if (percent > told) tell({ percent: (told = percent) });
  });
  tell({ result });
});

/** The same numbers each time, so that the same journeys give the same answer (mulberry32). */
function randomFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}
