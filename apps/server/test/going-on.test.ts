import type { ChildProcess } from 'node:child_process';
import { afterAll, afterEach, beforeAll, beforeEach, expect, test } from '@jest/globals';
import type { ComparisonShape, IntakeShape, ScanShape, SheetShape } from '@haycart/api';
import type { RouteDefinition } from '@haycart/core';
import { freePort, killProcesses, startProcess } from './support/server-process';
import { routeFrom } from './support/routes';
import { newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

let observer: TestServer;
let workspace: TestWorkspace;
let port: number;
let working: ChildProcess;

beforeAll(async () => {
  // It only looks on: whatever is to be done is left to the process that is killed.
  observer = await TestServer.start(await newDatabase(), { role: 'web', background: false });
});
beforeEach(async () => {
  workspace = await TestWorkspace.make(observer);
  port = await freePort();
  working = await startProcess(observer.databaseUrl, port);
});
afterEach(() => killProcesses());
afterAll(() => observer.stop());

async function ask<Answer>(path: string, request: RequestInit): Promise<Answer> {
  const response = await fetch(`http://127.0.0.1:${port}/api/v1${path}`, {
    ...request,
    headers: { authorization: `Bearer ${workspace.token}`, ...request.headers },
  });
  expect(response.status).toBeLessThan(300);
  const text = await response.text();
  return (text ? JSON.parse(text) : undefined) as Answer;
}
const askJson = <Answer>(path: string, body: object) =>
  ask<Answer>(path, { method: 'POST', body: JSON.stringify(body), headers: { 'content-type': 'application/json' } });
/** A route that makes a contact of every row. */
function personFrom(key: string): RouteDefinition {
  const route = routeFrom(key);
  return {
    ...route,
    writes: route.writes.filter(({ as }) => as === 'person').map((write) => ({ ...write, links: [] })),
  };
}
const sheet = (key: string) => workspace.get<SheetShape>(`/sheets/${key}`);

async function killAndStartAgain(): Promise<void> {
  working.kill('SIGKILL');
  port = await freePort();
  working = await startProcess(observer.databaseUrl, port);
}

async function bringIn(rows: number): Promise<string> {
  const lines = Array.from({ length: rows }, (_, n) => `Person ${n},p${n}@weir.example`);
  const form = new FormData();
  form.append('file', new Blob([['name,email', ...lines].join('\n')]), 'people.csv');
  return (await ask<{ intake: IntakeShape }>('/sheets', { method: 'POST', body: form })).intake.key;
}

test('a file whose reading is killed is read on, and no row lost or doubled', async () => {
  const rows = 20_000;
  const key = await bringIn(rows);
  await until(
    () => sheet(key),
    ({ files }) => files[0]!.kept > 0,
  );
  await killAndStartAgain();
  const { files } = await until(
    () => sheet(key),
    (told) => told.files[0]!.state === 'read',
  );
  expect(files[0]).toMatchObject({ kept: rows, refused: 0 });
  const [kept] = await workspace.query<{ rows: number; people: number }>(
    `select count(*)::int as rows, count(distinct convert_from(body, 'utf8')::jsonb ->> 'email')::int as people from submission`,
  );
  expect(kept).toEqual({ rows, people: rows });
});

test('a file whose taking back is killed is taken back whole', async () => {
  const rows = 2_500;
  const key = await bringIn(rows);
  await until(
    () => sheet(key),
    (told) => told.files[0]!.state === 'read',
  );
  const route = await workspace.publish(personFrom(key));
  await askJson(`/routes/${route}/catch-up`, { since: '2020-01-01T00:00:00Z', before: '2100-01-01T00:00:00Z' });
  await workspace.handled();
  const { files } = await sheet(key);
  await ask(`/sheets/files/${files[0]!.id}/take-back`, { method: 'POST' });
  await until(
    () => sheet(key),
    (told) => told.files[0]!.takenBack!.runs > 0,
  );
  await killAndStartAgain();
  const told = await until(
    () => sheet(key),
    (now) => now.files[0]!.takenBack!.done,
  );
  expect(told.files[0]!.takenBack).toMatchObject({ runs: rows, removed: { contact: rows }, left: 0 });
  expect(await workspace.query('select id from contact limit 1')).toEqual([]);
});

test('a comparison of routes whose process is killed goes on', async () => {
  const route = await workspace.publish();
  const body = Array.from({ length: 500 }, (_, n) => ({ name: `Person ${n}`, email: `p${n}@firm${n}.example` }));
  for (let turn = 0; turn < 4; turn += 1)
    await fetch(`http://127.0.0.1:${port}/in/${workspace.endpoint}`, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json' },
    });
  await workspace.handled();
  const { id } = await askJson<ComparisonShape>(`/routes/${route}/comparisons`, { last: 2_000 });
  await killAndStartAgain();
  const done = await until(
    () => workspace.get<ComparisonShape>(`/routes/${route}/comparisons/${id}`),
    ({ state }) => state !== 'working',
  );
  expect(done).toMatchObject({ state: 'done', looked: 2_000 });
});

test('a scan that is killed goes on, and finds what one that is not finds', async () => {
  // Every tenth is the one before with a typing error.
  await workspace.query(`
    insert into contact (workspace_id, id, number, first_name, last_name, full_name, email, phone, phones, created_at, updated_at)
    select current_workspace(), gen_random_uuid(), n, first, last, first || ' ' || last, 'p' || n || '@weir.example', phone, array[phone], now(), now()
    from generate_series(1, 9000) n,
      lateral (select n - (case when n % 10 = 0 then 1 else 0 end) as who) p,
      lateral (select 'Person' || translate(md5('first' || who), '0123456789', 'ghijklmnop') as first,
        translate(md5('last' || who), '0123456789', 'ghijklmnop') || case when n % 10 = 0 then 'x' else '' end as last,
        '+4477009' || lpad(who::text, 5, '0') as phone) v`);
  const pairs = () =>
    workspace.query<{ one_id: string; other_id: string }>('select one_id, other_id from look_alike order by 1, 2');
  const scan = async (then: () => Promise<void>): Promise<ScanShape> => {
    const { id } = await askJson<ScanShape>('/scans', { kind: 'contact' });
    await then();
    return until(
      async () => (await workspace.get<ScanShape[]>('/scans?kind=contact')).find((one) => one.id === id)!,
      ({ state }) => state !== 'running',
    );
  };
  const killed = await scan(async () => {
    await until(
      () => workspace.query<{ parts_done: number; parts: number }>('select parts_done, parts from look_alike_scan'),
      ([one]) => one!.parts_done > 0,
    );
    await killAndStartAgain();
  });
  expect(killed).toMatchObject({ state: 'done' });
  const found = await pairs();
  expect(found).toHaveLength(900);
  await workspace.query('delete from look_alike');
  await scan(() => Promise.resolve());
  expect(await pairs()).toEqual(found);
});
