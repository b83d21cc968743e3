import { expect, test } from '@jest/globals';
import type { Page, SearchHit, SubmissionShape } from '@haycart/api';
import { LIMITS, type JsonObject } from '@haycart/core';
import type { AfterChange } from '../src/platform/jobs/after-changes';
import { SubmissionSearch } from '../src/submissions/search/submission-search.service';
import pg from 'pg';
import { routeFrom } from './support/routes';
import { asOwner, eachInWorkspace, type TestServer, TestWorkspace } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;

eachInWorkspace((made) => ({ server, workspace } = made));

const list = (query: Record<string, string>) =>
  workspace.get<Page<SubmissionShape>>(`/submissions?${new URLSearchParams(query)}`);
const found = async (q: string) => (await list({ q })).items.map(({ who }) => who);

const PEOPLE: JsonObject[] = [
  {
    name: 'Łukasz Wróbel',
    email: 'lukasz@fernhouse.example',
    phone: '+48 601 234 567',
    message: 'Sixty bays of glass',
  },
  { name: 'Ada Weir', email: 'ada@weir.example', phone: '+44 7700 900318', message: 'Shade cloth, please' },
  { name: 'ada lowe', email: 'Ada.Lowe@weir.example', phone: '+44 7700 900319', message: 'Glass or film?' },
  { name: '王小明', email: 'ming@greenhouse.example', message: '玻璃' },
];

test('what was sent is found at once by any of its words, an address, a number or its id', async () => {
  for (const one of PEOPLE) await workspace.submit(one);
  const id = await workspace.submit({ name: 'Bo', email: 'bo@weir.example' });
  expect(await found('wrobel')).toEqual(['Łukasz Wróbel']);
  expect(await found('GLASS')).toEqual(['ada lowe', 'Łukasz Wróbel']);
  expect(await found('glass fern')).toEqual(['Łukasz Wróbel']);
  expect(await found('ada.lowe@weir.example')).toEqual(['ada lowe']);
  expect(await found('07700 900 318')).toEqual(['Ada Weir']);
  expect(await found('小明')).toEqual(['王小明']);
  expect(await found(id)).toEqual(['Bo']);
  expect(await found('orchids')).toEqual([]);
  expect(await found('!?')).toEqual([]);
  const later = await workspace.submit({ name: 'Cleo', message: 'orchids' });
  expect((await list({ q: 'orchids' })).items.map((one) => one.id)).toEqual([later]);
});

const HOSTILE: [string, string][] = [
  ['a quote', "'ada"],
  ['another query', "ada' | 'bo"],
  ['a backslash', '\\ada'],
  ['a negation', "ada\\' & !'ada"],
  ['a prefix', 'ada:*'],
  ['a distance', '<-> ada'],
  ['a bracket', '(ada'],
  ['NUL', 'ada\u0000'],
  ['no end', 'ada '.repeat(900)],
];
test.each(HOSTILE)('a search with %s is for its words, whatever they mean to a database', async (_, q) => {
  await workspace.submit({ name: 'Ada', message: "it's" });
  const { items } = await list({ q });
  expect(items.map(({ who }) => who)).toEqual(q.includes('bo') ? [] : ['Ada']);
});

test('a search goes with every filter, is counted, and another workspace’s is never found', async () => {
  await workspace.publish(routeFrom(workspace.endpoint));
  for (const one of PEOPLE) await workspace.submit(one);
  await workspace.handled();
  const glass = await list({ q: 'glass', outcome: 'written', intake: workspace.endpoint });
  expect(glass.items.map(({ who }) => who)).toEqual(['ada lowe', 'Łukasz Wróbel']);
  expect(glass.total).toBe(2);
  expect((await list({ q: 'glass', outcome: 'failed' })).items).toEqual([]);
  expect(await workspace.get(`/submission-outcomes?q=glass`)).toEqual({ written: 2 });
  const other = await TestWorkspace.make(server);
  expect((await other.get<Page<SubmissionShape>>('/submissions?q=glass')).items).toEqual([]);
});

test('what was read is not looked through again, and what comes late is not missed', async () => {
  await workspace.submit({ name: 'Old' });
  const owner = new pg.Client({ connectionString: asOwner(server.databaseUrl) });
  await owner.connect();
  const long = '01900000-0000-7000-8000-00000000000a';
  // A job may have read it by now: then that is undone.
  await owner.query('begin');
  await owner.query('lock table submission_reading, submission_search in exclusive mode');
  for (const read of ['submission_search', 'submission_reading'])
    await owner.query(`delete from ${read} where workspace_id = $1`, [workspace.id]);
  await owner.query('update submission set id = $1 where workspace_id = $2', [long, workspace.id]);
  await owner.query('commit');
  const read = () => server.database.inWorkspace(workspace.id, (tx) => server.app.get(SubmissionSearch).read(tx));
  const from = async () => (await workspace.query<{ until: string }>('select until from submission_reading'))[0]!.until;
  await read();
  expect(await from()).toBe(long);
  await workspace.submit({ name: 'New' });
  await read();
  const now = await from();
  expect(now > long).toBe(true);
  const [latest] = await workspace.query<{ id: string }>('select id from submission order by id desc limit 1');
  expect(now < latest!.id).toBe(true);
  expect((await found('new')).concat(await found('old'))).toEqual(['New', 'Old']);
  await owner.end();
});

test('a list is sorted by who sent, either way, and read on in that order', async () => {
  for (const one of [...PEOPLE, { note: 'no name' }]) await workspace.submit(one);
  const read = async (sort: string) => {
    const names: string[] = [];
    for (let after: string | undefined = ''; after !== undefined;) {
      const page: Page<SubmissionShape> = await list({ sort, limit: '2', after });
      names.push(...page.items.map(({ who }) => who));
      after = page.next;
    }
    return names;
  };
  const forwards = await read('who');
  expect(forwards).toEqual(['', 'ada lowe', 'Ada Weir', '王小明', 'Łukasz Wróbel'].sort(byPlain));
  expect(await read('-who')).toEqual([...forwards].reverse());
  expect(await read('received')).toEqual([...(await read('-received'))].reverse());
  expect((await workspace.call('GET', '/submissions?sort=colour')).status).toBe(422);
});

test('what arrived is read by a job too, all of it, unless the server is stopping', async () => {
  for (let n = 0; n < 3; n++)
    await workspace.submit(Array.from({ length: 150 }, (_, one) => ({ name: `Ada ${n} ${one}` })));
  let work: AfterChange['work'];
  const after = { follow: (change: AfterChange) => (work = change.work) };
  new SubmissionSearch(server.database, after as never).onModuleInit();
  const read = async () => (await workspace.query('select 1 from submission_search')).length;
  await expect(work!(workspace.id, AbortSignal.abort())).rejects.toThrow();
  expect(await read()).toBe(0);
  await work!(workspace.id, new AbortController().signal);
  expect(await read()).toBe(450);
  expect((await list({ q: 'ada 2 149' })).items.map(({ who }) => who)).toEqual(['Ada 2 149']);
});

test('a list of the largest submissions is read on to its end', async () => {
  const parts = Object.fromEntries(['a', 'b', 'c', 'd'].map((key) => [key, 'x'.repeat(LIMITS.payloadValue.most)]));
  const rest = LIMITS.body.most - Buffer.byteLength(JSON.stringify({ ...parts, e: '' }));
  for (let n = 0; n < 3; n++) await workspace.submit({ ...parts, e: 'y'.repeat(rest) });
  const pages: number[] = [];
  for (let after: string | undefined = ''; after !== undefined;) {
    const page: Page<SubmissionShape> = await list({ limit: '10', after });
    pages.push(page.items.length);
    after = page.next;
  }
  expect(pages.reduce((sum, n) => sum + n, 0)).toBe(3);
});

test('the search for anything finds submissions too, latest first', async () => {
  for (const one of PEOPLE) await workspace.submit(one);
  const hits = await workspace.get<SearchHit[]>('/search?q=ada');
  expect(hits.filter(({ kind }) => kind === 'submission').map(({ name }) => name.split(',')[0])).toEqual([
    'ada lowe',
    'Ada Weir',
  ]);
});

function byPlain(one: string, other: string): number {
  const [a, b] = [one.toLowerCase(), other.toLowerCase()];
  return a < b ? -1 : a > b ? 1 : 0;
}

test('what more than ten thousand hold is found without a total, what fewer hold is counted, alone or with another word', async () => {
  await workspace.submit({ name: 'Ada', message: 'glass' });
  await list({ q: 'glass' });
  // Each a copy of the first; 10,300 hold one word, 9,000 another, 100 both with a third.
  await workspace.query(
    `with first as (select * from submission limit 1), kept as (
       insert into submission (workspace_id, id, intake_id, received_at, format, body, visit, state, due_at)
       select workspace_id, ('00000000-0000-4000-8000-' || lpad(n::text, 12, '0'))::uuid, intake_id, received_at - make_interval(secs => n), format, body, visit, 'unrouted', due_at
       from first, generate_series(1, 10300) n returning workspace_id, id)
     insert into submission_search (workspace_id, submission_id, who, email, words)
     select workspace_id, id, '', '', array_to_tsvector(array_remove(array['common', case when n <= 9000 then 'fewer' end, case when n <= 100 then 'rare' end], null))
     from (select workspace_id, id, right(id::text, 12)::int as n from kept) k returning submission_id`,
  );
  const counted = async (q: string) => {
    const { items, total } = await list({ q, limit: '100' });
    return [items.length, total];
  };
  expect(await counted('common')).toEqual([100, undefined]);
  expect(await counted('fewer')).toEqual([100, 9_000]);
  expect(await counted('common fewer')).toEqual([100, 9_000]);
  expect(await counted('common rare')).toEqual([100, 100]);
  expect(await counted('nothing common')).toEqual([0, 0]);
  const { items } = await list({ q: 'common', limit: '2' });
  expect(items.map(({ id }) => id.slice(-2))).toEqual(['01', '02']);
});
