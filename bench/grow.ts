import type { ChildProcess } from 'node:child_process';
import type { RouteDefinition } from '@haycart/core';
import { foldCounts } from '../apps/server/src/platform/database/fold-counts';
import pg from 'pg';
import { multiply } from './grow/multiply';
import { recount } from './grow/recount';
import { spread } from './grow/spread';
import { route } from './enquiries';
import { freshDatabase, median, prepare, report, startServer, type Prepared } from './support';

/** Submissions that are really routed, and how many times their year is put on top of itself for the second size. */
const FIRST = 100_000;
const TIMES = Number(process.env.HAYCART_BENCH_TIMES ?? 10);
/** Of how many people; the rest are people who come again. */
const PEOPLE = 38_000;
const ROUNDS = 7;
const PORT = 4693;
/** How much slower a call may be with ten times the data. */
const GOAL = 1.5;

/** Shares of the arrivals by intake; the last brings few, and nothing takes what the one before it brings. */
const SHARES = [0.3, 0.2, 0.15, 0.12, 0.1, 0.07, 0.04, 0.018, 0.002];
const UNROUTED = SHARES.length - 2;
const SMALL = SHARES.length - 1;

/** What a person waits for, with the most milliseconds it may take. */
const calls = (key: (intake: number) => string): { name: string; path: string; most: number }[] => [
  { name: 'band', path: 'band', most: 20 },
  { name: 'home', path: 'home', most: 150 },
  { name: 'to decide', path: 'decisions', most: 150 },
  { name: 'intakes', path: 'intake-lines', most: 150 },
  { name: 'routes', path: 'routes', most: 150 },
  { name: 'submissions', path: 'submissions?limit=100', most: 150 },
  { name: 'submissions, failed', path: 'submissions?limit=100&outcome=failed', most: 150 },
  { name: 'submissions, skipped', path: 'submissions?limit=100&outcome=skipped', most: 150 },
  { name: 'submissions, no route', path: 'submissions?limit=100&outcome=unrouted', most: 150 },
  { name: 'submissions, set aside', path: 'submissions?limit=100&outcome=set-aside', most: 150 },
  { name: 'submissions, small intake', path: `submissions?limit=100&intake=${key(SMALL)}`, most: 150 },
  { name: 'submissions, a word', path: 'submissions?limit=100&q=last77', most: 150 },
  { name: 'submissions, a word in each', path: 'submissions?limit=100&q=heated', most: 150 },
  { name: 'submissions, by e-mail', path: 'submissions?limit=100&sort=email', most: 150 },
  { name: 'outcomes', path: 'submission-outcomes', most: 150 },
  { name: 'outcomes of an intake', path: `submission-outcomes?intake=${key(1)}`, most: 150 },
  { name: 'contacts through a small intake', path: `contacts?limit=50&through=${key(SMALL)}`, most: 100 },
  { name: 'readiness', path: 'set-up/readiness', most: 150 },
  { name: 'grid', path: 'pipelines/new-builds/grid', most: 150 },
  { name: 'find anything', path: 'search?q=last777', most: 150 },
];

/** Files of everything: when they begin. What a whole one takes grows with what there is. */
const FILES = [
  { name: 'all submissions as CSV, first byte', path: 'submissions/export?format=csv', most: 2_000 },
  { name: 'all contacts as XLSX, first byte', path: 'contacts/export?format=xlsx', most: 2_000 },
];

const databaseUrl = await freshDatabase('bench_grow');
const prepared = await prepare(databaseUrl);
const { services, workspaceId } = prepared;
const intakes = await services.database.inWorkspace(workspaceId, async (tx) => {
  const made = [];
  for (const [index] of SHARES.entries()) {
    const intake = await services.intakes.add(tx, { kind: 'endpoint', name: `Intake ${index}` });
    made.push(intake);
    if (index === UNROUTED) continue;
    const { id } = await services.routes.add(tx, routeOf(index, intake.key));
    await services.routes.publish(tx, id, 'bench', null);
  }
  return made;
});
const token = await services.tokens.makeFor('bench', 'bench');
const client = new pg.Client({ connectionString: databaseUrl });
await client.connect();
await fill(prepared);
await client.query('analyze');
await routed();
await spread(client);
await recount(client);
const figures: Record<string, number> = {};
const slow: string[] = [];
const first = await measured(FIRST);
await multiply(client, TIMES);
await recount(client);
const second = await measured(FIRST * TIMES);
await services.close();
await client.end();

const sum = (times: Map<string, number>) => [...times.values()].reduce((total, ms) => total + ms, 0);
const ratio = sum(second) / sum(first);
report({ bench: 'grow', ratio, goal: GOAL, met: ratio <= GOAL && !slow.length, figures });
if (slow.length) console.log(`Slower than they may be: ${slow.join('; ')}.`);

/** Asks for each call on the database as it is, and keeps what it took. */
async function measured(submissions: number): Promise<Map<string, number>> {
  while (await services.database.inWorkspace(workspaceId, (tx) => services.search.read(tx))) continue;
  // A job does this a moment after things arrive.
  await services.database.inWorkspace(workspaceId, (tx) => foldCounts(tx, 'arrival_count', ['intake_id'], 'arrivals'));
  await client.query('vacuum analyze');
  // What filling has left to be written would be written while calls are timed.
  await client.query('checkpoint');
  // What filling leaves to jobs, such as looking through records that were never compared, is another process’s.
  const server = await startServer(databaseUrl, 'web', PORT, { jobs: false });
  const found = new Map<string, number>();
  try {
    for (const { name, path, most } of calls((index) => intakes[index]!.key)) {
      const times: number[] = [];
      for (let round = 0; round <= ROUNDS; round += 1) times.push(await timed(path));
      // The first round fills caches.
      const ms = median(times.slice(1));
      found.set(name, ms);
      figures[`${submissions.toLocaleString('en-GB')}: ${name}, ms`] = ms;
      if (ms > most) slow.push(`${name} ${ms.toFixed(0)} of ${most} ms at ${submissions.toLocaleString('en-GB')}`);
    }
    for (const { name, path, most } of FILES) {
      const ms = await firstByte(path);
      figures[`${submissions.toLocaleString('en-GB')}: ${name}, ms`] = ms;
      if (ms > most) slow.push(`${name} ${ms.toFixed(0)} of ${most} ms at ${submissions.toLocaleString('en-GB')}`);
    }
  } finally {
    await ended(server);
  }
  return found;
}

async function firstByte(path: string): Promise<number> {
  const start = performance.now();
  const response = await fetch(`http://127.0.0.1:${PORT}/api/v1/${path}`, {
    headers: { authorization: `Bearer ${token}` },
  });
  const reader = response.body!.getReader();
  await reader.read();
  const ms = performance.now() - start;
  await reader.cancel();
  return ms;
}

async function timed(path: string): Promise<number> {
  const start = performance.now();
  const response = await fetch(`http://127.0.0.1:${PORT}/api/v1/${path}`, {
    headers: { authorization: `Bearer ${token}` },
  });
  if (!response.ok) throw new Error(`${path} answered ${response.status}: ${await response.text()}`);
  await response.arrayBuffer();
  return performance.now() - start;
}

/** Each intake’s route; one of them leaves most out, and all fail without an address. */
function routeOf(index: number, intake: string): RouteDefinition {
  const made = { ...route(intake), name: `Route ${index}` };
  for (const { as, fills } of made.writes) {
    const email = fills.find(({ field }) => field === 'email');
    if (as === 'person' && email) email.ifEmpty = 'fail';
  }
  return made;
}

async function fill({ services: { inbox } }: Prepared): Promise<void> {
  const bounds = SHARES.map((_, index) => SHARES.slice(0, index + 1).reduce((total, share) => total + share, 0));
  for (let from = 0; from < FIRST; from += 2_000) {
    const arrivals = Array.from({ length: 2_000 }, (_, offset) => {
      const n = from + offset;
      const person = (n * 7_919) % PEOPLE;
      const place = ((n * 104_729) % 10_000) / 10_000;
      const body = {
        first: `First${person}`,
        last: `Last${person}`,
        email: n % 500 === 7 ? '' : `p${person}@firm${person % 9_000}.example`,
        phone: `+4477${String(person).padStart(8, '0')}`,
        company: `Firm ${person % 9_000}`,
        message: 'Two bays for seed trials, heated, with shading. '.repeat(6),
      };
      return {
        workspaceId,
        intakeId: intakes[bounds.findIndex((bound) => place < bound)]?.id ?? intakes[0]!.id,
        receivedAt: new Date(),
        format: 'json' as const,
        body: Buffer.from(JSON.stringify(body)),
        visit: { utm_source: `source-${n % 40}`, utm_medium: n % 3 ? 'cpc' : 'email' },
      };
    });
    await inbox.keepAll(arrivals);
  }
}

async function routed(): Promise<void> {
  const server = await startServer(databaseUrl, 'route', PORT);
  for (;;) {
    const { rows } = await client.query<{ n: number }>(
      `select count(*)::int as n from submission where state = 'waiting'`,
    );
    if (rows[0]!.n === 0) break;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  await ended(server);
}

function ended(server: ChildProcess): Promise<void> {
  return new Promise((resolve) => {
    server.once('exit', () => resolve());
    server.kill();
  });
}
