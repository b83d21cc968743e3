import { randomBytes } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import pg from 'pg';
import { Jobs } from '../src/platform/jobs/jobs';
import { openServices } from '../src/seeding';
import { asOwner, MIGRATIONS, newDatabase, TestServer, until } from './support/test-server';

let databaseUrl: string;
let admin: pg.Client;

beforeAll(async () => {
  databaseUrl = await newDatabase();
  admin = new pg.Client({ connectionString: asOwner(databaseUrl) });
  await admin.connect();
});
afterAll(() => admin.end());

/** A server that does jobs of one kind. */
async function working(work: () => Promise<unknown>): Promise<{ server: TestServer; jobs: Jobs }> {
  const server = await TestServer.start(databaseUrl, { role: 'web' }, (app) =>
    app.get(Jobs).register({ name: 'of-a-test', work }),
  );
  return { server, jobs: server.app.get(Jobs) };
}

test('a job that outlasts a stop is freed and done by the next process', async () => {
  let begun = false;
  const first = await working(() => ((begun = true), new Promise(() => {})));
  await first.jobs.add('of-a-test', { workspaceId: 'one' }, 'outlasts');
  await until(async () => begun, Boolean);
  await first.server.stop();
  let done = false;
  const second = await working(async () => (done = true));
  await until(async () => done, Boolean);
  await second.server.stop();
});

test('a job whose holder was killed before it showed that it lives is freed', async () => {
  const idle = await TestServer.start(databaseUrl, { role: 'web', background: false });
  await idle.app.get(Jobs).add('of-a-test', { workspaceId: 'two' }, 'killed');
  await idle.stop();
  await admin.query(
    `update graphile_worker._private_jobs set locked_by = 'worker-gone', locked_at = now() - interval '1 minute' where key = 'killed'`,
  );
  await admin.query(
    `update graphile_worker._private_job_queues set locked_by = 'worker-gone', locked_at = now() - interval '1 minute'`,
  );
  let done = false;
  const { server } = await working(async () => (done = true));
  await until(async () => done, Boolean);
  await server.stop();
});

test('services that are opened to fill the demo look for no jobs, a server does', async () => {
  const demo = await newDatabase();
  const owner = new pg.Client({ connectionString: asOwner(demo) });
  await owner.connect();
  const looking = async () =>
    (
      await owner.query(
        `select 1 from pg_stat_activity where datname = current_database() and application_name = 'haycart jobs' and query ilike '%listen%'`,
      )
    ).rowCount;
  const env = { DATABASE_URL: asOwner(demo), HAYCART_SECRET_KEY: randomBytes(32).toString('base64') };
  const services = await openServices(env, MIGRATIONS);
  await services.database.gate('workspaces');
  expect(await looking()).toBe(0);
  await services.close();
  const server = await TestServer.start(demo, { role: 'web' });
  await until(looking, Boolean);
  await server.stop();
  await owner.end();
});
