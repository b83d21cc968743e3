import {
  Counters,
  error,
  KnownRecords,
  lookupsFor,
  lookupsText,
  notBuiltYet,
  readRoute,
  rehearse,
  uniqueFieldsOf,
  withLibraries,
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
  if (ground && latest && !('ground' in data)) void answer(latest, ground);
});

/** Answers, unless something else was asked while a library was on its way. */
async function answer(asked: NonNullable<typeof latest>, on: RehearsalGround): Promise<void> {
  const answered = await withLibraries(() => answerTo(asked, on)).catch(() => notLoaded(asked.turn));
  if (asked === latest && on === ground) self.postMessage(answered);
}

function notLoaded(turn: number): FromWorker {
  const text =
    'A part of the page that this route needs could not be loaded. Check that you are connected, and change something.';
  return { turn, problems: [error('not-loaded', text)] };
}

function answerTo(
  { definition, turn }: { definition: RouteDefinition; turn: number },
  { submission, surroundings }: RehearsalGround,
): FromWorker {
  const read = readRoute(definition);
  if (!read.ok) return { turn, problems: read.problems };
  const problems = notBuiltYet(read.route);
  if (problems.length) return { turn, problems };
  const { sought: _, ...lookups } = lookupsFor(read.route, submission, surroundings.destination);
  const text = lookupsText(lookups);
  if (known?.text !== text) return { turn, lookups, text };
  const { records, links, counters } = known.known;
  const uniques = uniqueFieldsOf(surroundings.destination.fields);
  const knows = new KnownRecords(records, links, uniques);
  return { turn, plan: rehearse(read.route, submission, knows, surroundings, new Counters(counters)) };
}
