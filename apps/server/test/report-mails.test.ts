import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import type { ReportMail } from '@haycart/api';
import { serverSetting, startMailStandIn, type MailStandIn } from './support/mail-stand-in';
import pg from 'pg';
import { asOwner, eachInWorkspace, type TestServer, type TestWorkspace, until } from './support/test-server';

let workspace: TestWorkspace;
let server: TestServer;
let person: TestWorkspace['call'];
let outside: MailStandIn;

beforeAll(async () => {
  outside = await startMailStandIn();
});
afterAll(() => outside.stop());
beforeEach(() => outside.forget());

eachInWorkspace(async (made) => {
  ({ workspace, server } = made);
  person = await workspace.signIn();
  await workspace.publish();
  await person('PUT', '/mail-server', serverSetting(outside));
});

const add = (query: object = { period: 'last-week' }, name = 'All of it') =>
  person<ReportMail>('POST', '/report-mails', { name, query });
const mine = async () => (await person<ReportMail[]>('GET', '/report-mails')).body;

test('a view is mailed to whoever asked for it, with its figures and a file', async () => {
  const visit = { utm_source: 'news', utm_medium: 'email' };
  await workspace.submit({ name: 'Ada Weir', email: 'ada@weir.example', bays: 3, _visit: JSON.stringify(visit) });
  await workspace.handled();
  const { body } = await add({ from: undefined, period: '30', credit: 'first' });
  expect(body).toMatchObject({ name: 'All of it', sentAt: null, error: null });
  const sent = await person<ReportMail>('POST', `/report-mails/${body.id}/send`);
  expect(sent).toMatchObject({ status: 200, body: { error: null } });
  expect(sent.body.sentAt).not.toBeNull();
  const [mail] = await outside.received();
  expect(mail!.subject).toMatch(/^All of it: £ 0\.00 won, /);
  expect(mail!.text).toContain('Submissions: 1');
  expect(mail!.text).toContain('- E-mail: 1 submission');
});

test('each Monday, and on the next one again', async () => {
  const { body } = await add();
  const owner = new pg.Client({ connectionString: asOwner(server.databaseUrl) });
  await owner.connect();
  const key = `mail-report ${body.id}`;
  const planned = async () =>
    (await owner.query<{ at: Date }>('select run_at as at from graphile_worker._private_jobs where key = $1', [key]))
      .rows;
  const [monday] = await planned();
  await owner.query('update graphile_worker._private_jobs set run_at = now() where key = $1', [key]);
  await until(mine, ([mail]) => mail!.sentAt !== null);
  expect(await outside.received()).toHaveLength(1);
  const [next] = await until(planned, (jobs) => jobs.length === 1);
  expect(Math.abs(next!.at.getTime() - monday!.at.getTime())).toBeLessThan(60_000);
  await owner.end();
});

test('what goes wrong stands with it, and is sent again when somebody says so', async () => {
  const { body } = await add();
  await person('DELETE', '/mail-server');
  expect((await person('POST', `/report-mails/${body.id}/send`)).status).toBe(200);
  expect(await mine()).toMatchObject([{ sentAt: null, error: expect.stringContaining('Nothing sends mail') }]);
  await person('PUT', '/mail-server', serverSetting(outside));
  await person('POST', `/report-mails/${body.id}/send`);
  expect(await mine()).toMatchObject([{ error: null }]);
});

test('is each person’s own', async () => {
  const { body } = await add();
  await person('POST', '/people', { name: 'Ida Weir', email: `ida.${workspace.key}@quillfern.example` });
  await workspace.query(`update report_mail set person_id = (select id from person where key <> 'robin-nye' limit 1)`);
  expect(await mine()).toEqual([]);
  expect((await person('POST', `/report-mails/${body.id}/send`)).status).toBe(404);
  expect((await person('DELETE', `/report-mails/${body.id}`)).status).toBe(404);
  expect((await workspace.call('POST', '/report-mails', { name: 'A', query: {} })).status).toBe(403);
});

test('at most twenty are mailed to one, and one that was removed is mailed to nobody', async () => {
  const first = (await add()).body;
  for (let nth = 1; nth < 20; nth += 1) expect((await add()).status).toBe(201);
  expect((await add()).status).toBe(422);
  expect((await person('DELETE', `/report-mails/${first.id}`)).status).toBe(204);
  expect(await mine()).toHaveLength(19);
});

test.each([
  [{ period: 'always' }],
  [{ split: 'deal.nothing' }],
  [{ dealFilter: '{' }],
  [{ from: '2026-03-02', to: '2026-03-01' }],
  [{ nothing: 1 }],
])('refuses %j', async (query) => {
  expect((await add(query)).status).toBeGreaterThanOrEqual(400);
  expect(await mine()).toEqual([]);
});

test('a name that a database cannot hold is no mistake of ours', async () => {
  expect((await add({}, 'a\u0000b')).status).toBeLessThan(500);
  expect((await add({ intake: 'a\u0000b' })).status).toBeLessThan(500);
});
