import { execFileSync, spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { startRelay } from './support/relay';
import { freePort, killProcesses, MAIN, startProcess } from './support/server-process';
import { newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

const root = fileURLToPath(new URL('../../../', import.meta.url));
const cluster = (verb: string, folder: string) =>
  execFileSync('sh', [join(root, 'scripts/cluster.sh'), verb, folder], { encoding: 'utf8' }).trim();

let folder: string;

beforeEach(() => {
  folder = join(mkdtempSync(join(tmpdir(), 'haycart-crash-')), 'database');
});
afterEach(() => {
  killProcesses();
  cluster('remove', folder);
});

/** Posts from many clients until told to stop; answers what was acknowledged. What fails is sent no second time. */
function pour(address: string): { acknowledged: string[]; attempts: () => number; stop: () => Promise<void> } {
  const acknowledged: string[] = [];
  let attempts = 0;
  let pouring = true;
  const client = async (number: number) => {
    while (pouring) {
      attempts += 1;
      const n = attempts;
      const body = JSON.stringify({
        name: `Visitor ${n}`,
        email: `v${n % 40}.${number}@weir${n % 7}.example`,
        company: 'Weir',
      });
      const answer = await fetch(address, {
        method: 'POST',
        body,
        headers: { 'content-type': 'application/json' },
      }).catch(() => null);
      if (answer?.status === 202) acknowledged.push(((await answer.json()) as { submissionId: string }).submissionId);
      else await new Promise((resolve) => setTimeout(resolve, 5));
    }
  };
  const clients = Array.from({ length: 8 }, (_, number) => client(number));
  return {
    acknowledged,
    attempts: () => attempts,
    stop: async () => {
      pouring = false;
      await Promise.all(clients);
    },
  };
}

async function workspaceFor(databaseUrl: string): Promise<{ web: TestServer; workspace: TestWorkspace }> {
  // Jobs are done by the processes that are tried: this one, which is asked alone, has none under way when the database goes.
  const web = await TestServer.start(databaseUrl, { role: 'web', background: false });
  const workspace = await TestWorkspace.make(web);
  await workspace.publish();
  await workspace.call('PATCH', `/intakes/${workspace.endpoint}`, { perMinute: null });
  return { web, workspace };
}

/** Every acknowledged submission exists, was routed, and has exactly one run; each run one touch a record, so no effect is doubled. */
async function expectNothingLost(workspace: TestWorkspace, acknowledged: readonly string[]): Promise<void> {
  await workspace.handled();
  const [kept] = await workspace.query<{ kept: number; runs: number; written: number; touched: number }>(
    `select count(distinct s.id)::int as kept, count(r.id)::int as runs, count(*) filter (where r.outcome = 'written')::int as written,
       (select count(*)::int from touch t where t.record_kind = 'contact' and t.attempt_id in (select attempt_id from run where submission_id = any($1::uuid[]))) as touched
     from submission s left join run r on r.workspace_id = s.workspace_id and r.submission_id = s.id where s.id = any($1::uuid[])`,
    [acknowledged],
  );
  const all = acknowledged.length;
  expect(kept).toEqual({ kept: all, runs: all, written: all, touched: all });
  const [doubles] = await workspace.query<{ n: number }>(
    'select count(*)::int as n from (select email from contact group by email having count(*) > 1) d',
  );
  expect(doubles!.n).toBe(0);
}

test('kill -9 of the server while submissions pour in loses nothing and doubles nothing', async () => {
  const databaseUrl = await newDatabase(cluster('start', folder));
  const { web, workspace } = await workspaceFor(databaseUrl);
  const port = await freePort();
  const child = await startProcess(databaseUrl, port);
  const rain = pour(`http://127.0.0.1:${port}/in/${workspace.endpoint}`);
  await until(
    async () => rain.acknowledged.length,
    (count) => count > 300,
  );
  child.kill('SIGKILL');
  await startProcess(databaseUrl, port);
  const before = rain.acknowledged.length;
  await until(
    async () => rain.acknowledged.length,
    (count) => count > before + 200,
  );
  await rain.stop();
  await expectNothingLost(workspace, rain.acknowledged);
  await web.stop();
});

test('an immediate stop of the database while submissions pour in loses nothing; the server goes on when it is back', async () => {
  const url = cluster('start', folder);
  const databaseUrl = await newDatabase(url);
  const { web, workspace } = await workspaceFor(databaseUrl);
  const port = await freePort();
  // The database comes back on another port, so the server is reached through a relay that always knows the present one.
  const relay = await startRelay(Number(new URL(url).port));
  const relayed = databaseUrl.replace(/:\d+\//, `:${relay.port}/`);
  await startProcess(relayed, port);
  const rain = pour(`http://127.0.0.1:${port}/in/${workspace.endpoint}`);
  await until(
    async () => rain.acknowledged.length,
    (count) => count > 300,
  );
  cluster('crash', folder);
  const refused = await until(
    () =>
      fetch(`http://127.0.0.1:${port}/in/${workspace.endpoint}`, {
        method: 'POST',
        body: '{}',
        headers: { 'content-type': 'application/json' },
      }),
    ({ status }) => status !== 202,
  );
  expect([refused.status, refused.headers.get('retry-after')]).toEqual([503, '5']);
  await web.stop();
  const back = cluster('start', folder);
  relay.target(Number(new URL(back).port));
  const before = rain.acknowledged.length;
  await until(
    async () => rain.acknowledged.length,
    (count) => count > before + 200,
  );
  await rain.stop();
  const after = await TestServer.start(databaseUrl.replace(/:\d+\//, `:${new URL(back).port}/`), { role: 'web' });
  await expectNothingLost(
    Object.assign(Object.create(TestWorkspace.prototype) as TestWorkspace, workspace, { server: after }),
    rain.acknowledged,
  );
  await after.stop();
  relay.close();
});

test('a second server on the same port says so and ends', async () => {
  const databaseUrl = await newDatabase(cluster('start', folder));
  const port = await freePort();
  await startProcess(databaseUrl, port);
  const second = spawn(process.execPath, [MAIN], {
    env: { ...process.env, DATABASE_URL: databaseUrl, HAYCART_PORT: String(port) },
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  const said: Buffer[] = [];
  second.stderr.on('data', (chunk: Buffer) => said.push(chunk));
  const code = await new Promise((resolve) => second.on('exit', resolve));
  expect([code, Buffer.concat(said).toString()]).toEqual([1, expect.stringContaining(`port ${port} is taken`)]);
});
