import { KnownRecords, notBuiltYet, readRoute, rehearse, uniqueFieldsOf } from '@haycart/core';
import type { FromWorker, RehearsalGround, ToWorker } from './rehearsal-messages';

/** Rehearses beside the page, with the core that runs live, so that typing never waits for it. */
let ground: RehearsalGround | null = null;

self.addEventListener('message', ({ data }: MessageEvent<ToWorker>) => {
  if ('ground' in data) ground = data.ground;
  else if (ground) self.postMessage(answerTo(data, ground));
});

function answerTo(
  { definition, turn }: Extract<ToWorker, { turn: number }>,
  { submission, known, surroundings }: RehearsalGround,
): FromWorker {
  const read = readRoute(definition);
  if (!read.ok) return { turn, problems: read.problems };
  const problems = notBuiltYet(read.route);
  if (problems.length) return { turn, problems };
  const uniques = uniqueFieldsOf(surroundings.destination.fields);
  return {
    turn,
    plan: rehearse(read.route, submission, new KnownRecords(known.records, known.links, uniques), surroundings),
  };
}
