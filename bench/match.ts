import { blocksOf, comparedForm, type FieldValues } from '@haycart/core';
import pg from 'pg';
import { copyPeople, manyPeople, modelOf } from './people';
import { freshDatabase, prepare, report } from './support';

const SIZES = [10_000, 100_000, 1_000_000];
const NEWCOMERS = 300;
const SEED = 500;
const ASK = 0.35;
/** Milliseconds, at a million. */
const GOAL_MS = 10;
/** To the same at ten thousand. */
const GOAL_RATIO = 2;

const quantile = (sorted: readonly number[], share: number) =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!;

const figures: Record<string, number> = {};
const p95: number[] = [];
for (const size of SIZES) {
  const databaseUrl = await freshDatabase('bench_match');
  const { services, workspaceId } = await prepare(databaseUrl);
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  await copyPeople(client, workspaceId, manyPeople(size, SEED));
  await client.query('vacuum analyze');
  // Somebody who comes again, wrongly written, or somebody new: people of the same worlds that were not put in.
  const newcomers = [...manyPeople(NEWCOMERS, SEED)].map(({ values }): FieldValues => values);
  const model = modelOf([...manyPeople(5_000, SEED)]);
  const times: number[] = [];
  let found = 0;
  for (let round = 0; round < 2; round++) {
    for (const values of newcomers) {
      const begin = process.hrtime.bigint();
      const compared = comparedForm('contact', values);
      const sought = { record: 'contact', blocks: blocksOf(compared), compared, byName: false, ask: ASK } as const;
      await services.database.inWorkspace(workspaceId, async (tx) => {
        const asked = [{ ...sought, open: 'nothing' as const }];
        const likely = await services.candidates.likely(tx, asked, { contact: model });
        if (round) found += likely.get('contact')?.size ?? 0;
      });
      if (round) times.push(Number(process.hrtime.bigint() - begin) / 1e6);
    }
  }
  times.sort((a, b) => a - b);
  const at = size.toLocaleString('en-GB');
  figures[`${at}: median, ms`] = quantile(times, 0.5);
  figures[`${at}: 95 %, ms`] = quantile(times, 0.95);
  figures[`${at}: likely ones found`] = found;
  p95.push(quantile(times, 0.95));
  figures[`${at}: memory of this process, MB`] = process.memoryUsage().rss / 1e6;
  await client.end();
  await services.close();
}
const ratio = p95[2]! / p95[0]!;
report({
  bench: 'match',
  ratio,
  goal: GOAL_RATIO,
  met: p95[2]! <= GOAL_MS && ratio <= GOAL_RATIO,
  figures: { 'at 1,000,000 to 10,000 (goal at most 2)': ratio, ...figures },
});
