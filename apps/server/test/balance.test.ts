import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import type { Balance, BalanceLine } from '@haycart/api';
import pg from 'pg';
import { AcknowledgedCounts } from '../src/submissions/counts/acknowledged-counts.service';
import { asOwner, newDatabase, TestServer, TestWorkspace } from './support/test-server';

let server: TestServer;
let owner: pg.Client;
let workspace: TestWorkspace;

beforeAll(async () => {
  const databaseUrl = await newDatabase();
  server = await TestServer.start(databaseUrl);
  owner = new pg.Client({ connectionString: asOwner(databaseUrl) });
  await owner.connect();
});
afterAll(async () => {
  await owner.end();
  await server.stop();
});
beforeEach(async () => {
  workspace = await TestWorkspace.make(server);
});

const enquiry = (name: string) => ({ name, email: `${name}@weir.example`, company: 'Weir', bays: 1 });
async function balance(): Promise<Balance> {
  await server.app.get(AcknowledgedCounts).flush();
  return workspace.get<Balance>('/reports/balance?days=2');
}
/** All lines as one: a test may run over midnight. */
async function sums(): Promise<Partial<BalanceLine>> {
  const { lines } = await balance();
  const sum = (key: 'acknowledged' | 'kept' | 'written' | 'failed' | 'unrouted' | 'setAside' | 'waiting') =>
    lines.reduce((all, line) => all + line[key], 0);
  return { acknowledged: sum('acknowledged'), kept: sum('kept'), written: sum('written'), unrouted: sum('unrouted') };
}
const metric = async () =>
  /^haycart_off_balance (\d+)/m.exec(await (await fetch(`${server.base}/metrics`)).text())?.[1];

test('every acknowledged submission is stored and counted by its outcome, however it was sent', async () => {
  // Before there is a route nothing takes it; afterwards it is written.
  await workspace.submit(enquiry('ada'));
  await workspace.handled();
  await workspace.publish();
  await workspace.submit(enquiry('bo'));
  await workspace.submit(enquiry('cy'), { 'idempotency-key': 'once' });
  await workspace.submit(enquiry('cy'), { 'idempotency-key': 'once' });
  await workspace.submit([enquiry('dee'), enquiry('eli'), enquiry('fay')]);
  await Promise.all(Array.from({ length: 40 }, (_, n) => workspace.submit(enquiry(`many${n}`))));
  await workspace.handled();
  const { acknowledged, kept, written, unrouted } = await sums();
  expect([acknowledged, unrouted]).toEqual([kept, 1]);
  expect(kept! - written!).toBe(1);
  expect((await balance()).off).toBe(0);
});

test('a deleted submission is noticed and one without a run is named, in the metric too', async () => {
  await workspace.publish();
  const ids = [await workspace.submit(enquiry('ada')), await workspace.submit(enquiry('bo'))];
  await workspace.handled();
  expect((await balance()).off).toBe(0);
  // As by a mistake of somebody who may do anything in the database.
  await owner.query('set session_replication_role = replica');
  await owner.query('delete from submission where id = $1', [ids[0]]);
  await owner.query('delete from run where submission_id = $1', [ids[1]]);
  await owner.query('set session_replication_role = default');
  const { off, lines } = await balance();
  expect([off, lines.flatMap((line) => line.off)]).toEqual([2, [ids[1]]]);
  expect(lines.reduce((all, { acknowledged, kept }) => all + acknowledged - kept, 0)).toBe(1);
  // Of all workspaces; asked for the first time, since it is kept for a minute.
  expect(await metric()).toBe('2');
});

test('is taken away as a file', async () => {
  await workspace.submit(enquiry('ada'));
  await workspace.handled();
  await balance();
  const response = await fetch(`${server.base}/api/v1/reports/balance/export?format=csv`, {
    headers: { authorization: `Bearer ${workspace.token}` },
  });
  const [heads, line] = (await response.text())
    .replace(/^\uFEFF/, '')
    .trim()
    .split(/\r?\n/);
  expect(heads).toMatch(/^Day,Intake,Acknowledged,Kept,Written/);
  expect(line).toMatch(/^\d{4}-\d{2}-\d{2},[^,]+,1,1,0/);
});

test.each(['days=0', 'days=500'])('refuses %s', async (query) =>
  expect((await workspace.call('GET', `/reports/balance?${query}`)).status).toBeGreaterThanOrEqual(400),
);
