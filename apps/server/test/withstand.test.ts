import { spawn } from 'node:child_process';
import { openSync } from 'node:fs';
import { connect } from 'node:net';
import { afterAll, afterEach, beforeAll, expect, test } from '@jest/globals';
import type { IntakeShape, SheetShape } from '@haycart/api';
import pg from 'pg';
import { Database } from '../src/platform/database/database';
import { startRelay, type Relay } from './support/relay';
import { freePort, killProcesses, MAIN, startProcess } from './support/server-process';
import { asOwner, newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

let maker: TestServer;
let workspace: TestWorkspace;
const relays: Relay[] = [];

beforeAll(async () => {
  maker = await TestServer.start(await newDatabase(), { role: 'web', background: false });
  workspace = await TestWorkspace.make(maker);
  await workspace.publish();
  await workspace.call('PATCH', `/intakes/${workspace.endpoint}`, { perMinute: null });
});
afterEach(() => {
  killProcesses();
  for (const relay of relays.splice(0)) relay.close();
});
afterAll(() => maker.stop());

async function throughRelay(): Promise<{ relay: Relay; databaseUrl: string }> {
  const relay = await startRelay(Number(new URL(maker.databaseUrl).port));
  relays.push(relay);
  return { relay, databaseUrl: maker.databaseUrl.replace(/:\d+\//, `:${relay.port}/`) };
}

const post = (port: number, body: string, path = `/in/${workspace.endpoint}`) =>
  fetch(`http://127.0.0.1:${port}${path}`, { method: 'POST', body, headers: { 'content-type': 'application/json' } });
const ready = (port: number) => fetch(`http://127.0.0.1:${port}/readyz`);

async function bringIn(port: number, rows: number): Promise<string> {
  const form = new FormData();
  const lines = Array.from({ length: rows }, (_, n) => `Person ${n},p${n}@weir.example`);
  form.append('file', new Blob([['name,email', ...lines].join('\n')]), `people ${rows}.csv`);
  const headers = { authorization: `Bearer ${workspace.token}` };
  const answer = await fetch(`http://127.0.0.1:${port}/api/v1/sheets`, { method: 'POST', headers, body: form });
  return ((await answer.json()) as { intake: IntakeShape }).intake.key;
}
const file = async (key: string) => (await workspace.get<SheetShape>(`/sheets/${key}`)).files[0]!;

test('a job that runs while the database goes away goes on by itself, and the process lives', async () => {
  const { relay, databaseUrl } = await throughRelay();
  const port = await freePort();
  const child = await startProcess(databaseUrl, port);
  const rows = 12_000;
  const key = await bringIn(port, rows);
  for (const kept of [0, 3_000]) {
    await until(
      () => file(key),
      (told) => told.kept > kept,
    );
    relay.cut();
  }
  const told = await until(
    () => file(key),
    ({ state }) => state !== 'reading',
  );
  expect(told).toMatchObject({ state: 'read', kept: rows });
  expect([child.exitCode, (await ready(port)).status]).toEqual([null, 200]);
});

test('whoever watches hears, after the database was away, that anything may have changed', async () => {
  const { relay, databaseUrl } = await throughRelay();
  const port = await freePort();
  await startProcess(databaseUrl, port);
  const watching = new AbortController();
  const stream = await fetch(`http://127.0.0.1:${port}/api/v1/events`, {
    headers: { authorization: `Bearer ${workspace.token}` },
    signal: watching.signal,
  });
  let heard = '';
  const listening = (async () => {
    for await (const chunk of stream.body as unknown as AsyncIterable<Uint8Array>)
      heard += Buffer.from(chunk).toString();
  })().catch(() => {});
  relay.cut();
  await until(
    async () => heard,
    (all) => all.includes('"form-domains"') && all.includes('"submissions"'),
  );
  watching.abort();
  await listening;
});

test('says within two seconds that it is not ready while the database is frozen, and goes on when it thaws', async () => {
  const { relay, databaseUrl } = await throughRelay();
  const port = await freePort();
  await startProcess(databaseUrl, port);
  relay.freeze();
  const answer = await fetch(`http://127.0.0.1:${port}/readyz`, { signal: AbortSignal.timeout(2_000) });
  expect(answer.status).toBe(503);
  relay.thaw();
  await until(
    () => ready(port),
    ({ ok }) => ok,
  );
});

test('a stop loses nothing of a sender that heeds /readyz: it says that it is not ready, answers what is under way, and ends', async () => {
  const port = await freePort();
  const child = await startProcess(maker.databaseUrl, port);
  const ended = new Promise<number | null>((resolve) => child.on('exit', resolve));
  const statuses: (number | string)[] = [];
  let notReady = false;
  const clients = Array.from({ length: 4 }, async () => {
    while (!notReady) {
      const status = await post(port, '{"name":"Ada","email":"ada@weir.example"}').then(
        (answer) => answer.status,
        (cause: { cause?: { code?: string } }) => cause.cause?.code ?? String(cause),
      );
      statuses.push(status);
    }
  });
  await until(
    async () => statuses.length,
    (count) => count > 50,
  );
  child.kill('SIGTERM');
  while (!notReady && child.exitCode === null)
    notReady = await ready(port).then(
      ({ status }) => status === 503,
      () => false,
    );
  expect(await ended).toBe(0);
  await Promise.all(clients);
  expect(notReady).toBe(true);
  expect(new Set(statuses)).toEqual(new Set([202]));
});

test('a full disk under the log ends nothing', async () => {
  const port = await freePort();
  const full = openSync('/dev/full', 'w');
  const child = spawn(process.execPath, [MAIN], {
    env: { ...process.env, DATABASE_URL: maker.databaseUrl, HAYCART_PORT: String(port), HAYCART_LOG: 'debug' },
    stdio: ['ignore', full, full],
  });
  try {
    await until(
      () => ready(port).catch(() => null),
      (answer) => answer?.ok === true,
    );
    expect((await post(port, '{"name":')).status).toBe(400);
    expect((await post(port, '{"name":"Ada"}')).status).toBe(202);
    expect(child.exitCode).toBeNull();
  } finally {
    child.kill('SIGKILL');
  }
});

test('a sender who reads nothing before all is sent gets the 413 of a body that is too large', async () => {
  const port = await freePort();
  await startProcess(maker.databaseUrl, port);
  const answer = await new Promise<string>((resolve, reject) => {
    const socket = connect(port, '127.0.0.1');
    const length = 8 * 1_048_576;
    socket.write(
      `POST /in/${workspace.endpoint} HTTP/1.1\r\nhost: x\r\ncontent-type: application/json\r\ncontent-length: ${length}\r\n\r\n`,
    );
    socket.pause();
    socket.write(Buffer.alloc(length, 'x'), () => {
      socket.on('data', (chunk: Buffer) => resolve(chunk.toString()));
      socket.resume();
    });
    socket.on('error', reject);
  });
  expect(answer).toMatch(/^HTTP\/1.1 413 /);
});

test.each([
  ['the owner', (url: string) => asOwner(url)],
  [
    'a login that bypasses row-level security',
    (url: string) => Object.assign(new URL(url), { username: 'strong', password: 'strong' }).href,
  ],
])('nothing is asked on a connection as %s', async (_, address) => {
  const admin = new pg.Client({ connectionString: asOwner(maker.databaseUrl) });
  await admin.connect();
  await admin.query(`do $$ begin create role strong login bypassrls password 'strong' in role haycart_server;
    exception when duplicate_object then null; end $$`);
  await admin.end();
  const database = new Database(address(maker.databaseUrl), 1);
  await expect(database.gate('workspaces')).rejects.toThrow('this database login may do more');
  await database.onApplicationShutdown();
});

test('the server’s own login cannot become anybody else', async () => {
  for (const statement of ['set role none', 'reset role', 'set session authorization default']) {
    const client = new pg.Client({ connectionString: maker.databaseUrl });
    await client.connect();
    await client.query(statement);
    expect((await client.query('select 1 from contact union all select 1 from person')).rows).toEqual([]);
    await client.end();
  }
});
