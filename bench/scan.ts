import { setTimeout } from 'node:timers/promises';
import { USUAL_THRESHOLDS } from '@haycart/core';
import pg from 'pg';
import { copyPeople, manyPeople } from './people';
import { freshDatabase, prepare, report } from './support';

const SIZES = [10_000, 100_000];
const SEED = 700;

const figures: Record<string, number> = {};
const seconds: number[] = [];
for (const size of SIZES) {
  const databaseUrl = await freshDatabase('bench_scan');
  const { services, workspaceId } = await prepare(databaseUrl);
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const who = await copyPeople(client, workspaceId, manyPeople(size, SEED));
  await client.query('vacuum analyze');
  const at = size.toLocaleString('en-GB');
  const before = process.memoryUsage().rss;
  let peak = 0;
  const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 100);
  const begin = process.hrtime.bigint();
  // Its job is done here too, by this process; running it beside that would be a second one.
  await services.database.inWorkspace(workspaceId, (tx) => services.scans.start(tx, 'contact', 'bench'));
  while (
    (await services.database.inWorkspace(workspaceId, (tx) => services.scans.latest(tx, 'contact')))?.state ===
    'running'
  )
    await setTimeout(100);
  seconds.push(Number(process.hrtime.bigint() - begin) / 1e9);
  clearInterval(watch);
  const { rows } = await client.query<{ one_id: string; other_id: string; probability: number }>(
    'select one_id, other_id, probability from look_alike',
  );
  const people = new Map<string, number>();
  for (const person of who.values()) people.set(person, (people.get(person) ?? 0) + 1);
  const truth = [...people.values()].reduce((sum, times) => sum + (times * (times - 1)) / 2, 0);
  const accepted = rows.filter(({ probability }) => probability >= USUAL_THRESHOLDS.accept);
  const right = (pairs: typeof rows) =>
    pairs.filter(({ one_id: one, other_id: other }) => who.get(one) === who.get(other)).length;
  figures[`${at}: seconds`] = seconds[seconds.length - 1]!;
  figures[`${at}: pairs found`] = rows.length;
  figures[`${at}: precision of the accepted`] = right(accepted) / Math.max(1, accepted.length);
  figures[`${at}: recall, asked ones included`] = right(rows) / truth;
  figures[`${at}: memory before, MB`] = before / 1e6;
  figures[`${at}: memory with workers, MB`] = peak / 1e6;
  await client.end();
  await services.close();
}
const grown = seconds[1]! / seconds[0]!;
const allowed = (SIZES[1]! * Math.log2(SIZES[1]!)) / (SIZES[0]! * Math.log2(SIZES[0]!));
report({
  bench: 'scan',
  ratio: grown,
  goal: allowed,
  met: grown <= allowed,
  figures: { 'time at 100,000 to 10,000': grown, 'n log n would be': allowed, ...figures },
});
