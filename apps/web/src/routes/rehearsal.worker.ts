import {
  KnownRecords,
  lookupsFor,
  lookupsText,
  notBuiltYet,
  readRoute,
  rehearse,
  uniqueFieldsOf,
  type RouteDefinition,
} from '@haycart/core';
import type { FromWorker, RehearsalGround, ToWorker } from './rehearsal-messages';

/** Rehearses beside the page, with the core that runs live, so that typing never waits for it. */
let ground: RehearsalGround | null = null;
let latest: { definition: RouteDefinition; turn: number } | null = null;
let known: Extract<ToWorker, { known: unknown }> | null = null;

self.addEventListener('message', ({ data }: MessageEvent<ToWorker>) => {
  if ('ground' in data) ground = data.ground;
  else if ('known' in data) known = data;
  else latest = data;
  if (ground && latest && !('ground' in data)) self.postMessage(answerTo(latest, ground));
});

function answerTo(
  { definition, turn }: { definition: RouteDefinition; turn: number },
  { submission, surroundings }: RehearsalGround,
): FromWorker {
  const read = readRoute(definition);
  if (!read.ok) return { turn, problems: read.problems };
  const problems = notBuiltYet(read.route);
  if (problems.length) return { turn, problems };
  const { keys, deals, blocks } = lookupsFor(read.route, submission, surroundings.destination);
  const lookups = { keys, deals, blocks };
  const text = lookupsText(lookups);
  if (known?.text !== text) return { turn, lookups, text };
  const { records, links } = known.known;
  const uniques = uniqueFieldsOf(surroundings.destination.fields);
  return { turn, plan: rehearse(read.route, submission, new KnownRecords(records, links, uniques), surroundings) };
}
