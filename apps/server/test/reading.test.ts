import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  BandFigures,
  ProfileShape,
  FieldShape,
  HomeShape,
  IntakeLine,
  IntakeShape,
  Page,
  PipelineShape,
  ProblemBody,
  RecordShape,
  RouteLine,
  SearchHit,
  SubmissionShape,
} from '@haycart/api';
import type { JsonObject } from '@haycart/core';
import { FINISHERS } from '@haycart/core';
import { newDatabase, TestServer, TestWorkspace } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;

const PEOPLE: JsonObject[] = [
  {
    name: 'Maren Oduya',
    email: 'm.oduya@fennwick.example',
    phone: '07700 900318',
    company: 'Fennwick Academy',
    bays: '6',
    _visit: { utm_source: 'spring' },
  },
  {
    name: 'Joost de Ruiter',
    email: 'joost@vanderlaan.example',
    phone: '+31 6 0000 4182',
    company: 'Van der Laan',
    bays: 'a few',
  },
  { name: 'Siân Prothero', email: 'sian@fennwick.example', company: 'Fennwick Academy' },
];

beforeAll(async () => {
  server = await TestServer.start(await newDatabase());
  workspace = await TestWorkspace.make(server);
  await workspace.publish();
  // One after the other: records are numbered in the order in which they are made.
  for (const payload of [...PEOPLE, { email: 'not an address' }]) {
    await workspace.submit(payload);
    await workspace.handled();
  }
  const unrouted = await server.postJson(`/in/${workspace.form}`, { name: 'Bo', email: 'bo@weir.example' });
  expect(unrouted.status).toBe(202);
  await workspace.handled();
});
afterAll(() => server.stop());

describe('today’s figures', () => {
  test('count what arrived, what runs and what is new', async () => {
    expect(await workspace.get<BandFigures>('/band')).toEqual({
      intakesLive: 2,
      toDecide: 1,
      tasksDue: 0,
      submissionsToday: 5,
      waiting: 0,
      routesLive: 1,
      routesDraft: 0,
      recordsToday: 5,
      dealsMovedToday: 3,
      sourcesToday: 2,
    });
  });

  test('of the last day tell where everything went, how fast, and what broke', async () => {
    const home = await workspace.get<HomeShape>('/home');
    expect(home).toMatchObject({
      arrived: 5,
      written: 3,
      failed: 1,
      held: 0,
      skipped: 0,
      unrouted: 1,
      waiting: 0,
      quiet: [],
    });
    expect(home.flows).toEqual(
      expect.arrayContaining([
        { from: 'Dealers', to: 'New builds', outcome: 'written', count: 3 },
        { from: 'Dealers', to: 'Failed', outcome: 'failed', count: 1 },
      ]),
    );
    expect(home.median).toBeGreaterThan(0);
    expect(home.p95).toBeGreaterThanOrEqual(home.median!);
    expect(home).toMatchObject({
      weekAgo: { arrived: 0, failed: 0 },
      usuallyWritten: 0.75,
      intakes: [
        { name: 'Dealers', received: 4, written: 3, held: 0, skipped: 0, failed: 1 },
        { received: 1, written: 0, failed: 0 },
      ],
      sources: [
        { source: 'direct', count: 4 },
        { source: 'spring', count: 1 },
      ],
      weekSources: [
        { source: 'direct', count: 2 },
        { source: 'spring', count: 1 },
      ],
    });
    expect(home.days).toHaveLength(14);
    expect(home.days.at(-1)).toMatchObject({ arrived: 5, written: 3, failed: 1 });
    expect(home.days[0]).toEqual({ arrived: 0, written: 0, failed: 0, inPipeline: 0 });
    expect(home.changed).toMatchObject([{ route: 'Enquiries', version: 1, by: 'test' }]);
  });
});

describe('intakes', () => {
  test('are listed with their month, their routes and how they fare', async () => {
    const lines = await workspace.get<IntakeLine[]>('/intake-lines');
    const [endpoint, form] = lines;
    expect(endpoint).toMatchObject({
      name: 'Dealers',
      kind: 'endpoint',
      submissions: 4,
      failed: 1,
      routes: [{ name: 'Enquiries', state: 'live' }],
    });
    expect(endpoint!.month).toHaveLength(30);
    expect(endpoint!.month[29]).toBe(4);
    expect(form).toMatchObject({
      kind: 'form',
      submissions: 1,
      failed: 0,
      routes: [],
      address: `/f/f-${workspace.key}`,
    });
  });

  test('made by a person get a key that cannot be guessed', async () => {
    const keys = [];
    for (const name of ['One', 'Two'])
      keys.push((await workspace.call<IntakeShape>('POST', '/intakes', { kind: 'endpoint', name })).body.key);
    for (const key of keys) expect(key).toMatch(/^[\w-]{22}$/);
    expect(keys[0]).not.toBe(keys[1]);
  });

  test('tell the keys of the fields that they received', async () => {
    const { submissions, fields } = await workspace.get<ProfileShape>(`/intakes/${workspace.endpoint}/profile`);
    expect(submissions).toBe(4);
    expect(fields.find(({ key }) => key === 'email')).toMatchObject({
      sent: 4,
      filled: 4,
      examples: expect.arrayContaining([expect.any(String)]),
    });
    expect(fields.map(({ key }) => key)).not.toContain('_visit');
  });

  test('change only in what may change', async () => {
    expect((await workspace.call<ProblemBody>('PATCH', `/intakes/${workspace.endpoint}`, {})).status).toBe(422);
    expect((await workspace.call<ProblemBody>('PATCH', `/intakes/${workspace.endpoint}`, { key: 'mine' })).status).toBe(
      422,
    );
    expect(
      (await workspace.call<ProblemBody>('PATCH', `/intakes/${workspace.endpoint}`, { perMinute: 0 })).status,
    ).toBe(422);
    expect(
      (await workspace.call<IntakeShape>('PATCH', `/intakes/${workspace.endpoint}`, { perMinute: null })).body
        .perMinute,
    ).toBeNull();
  });
});

describe('submissions', () => {
  const list = async (query: string) => (await workspace.get<Page<SubmissionShape>>(`/submissions?${query}`)).items;

  test('are listed newest first with who sent them, their source and their runs', async () => {
    const all = await list('');
    expect(all.map(({ receivedAt }) => receivedAt)).toEqual(
      [...all.map(({ receivedAt }) => receivedAt)].sort().reverse(),
    );
    expect(all.find(({ email }) => email === 'm.oduya@fennwick.example')).toMatchObject({
      who: 'Maren Oduya',
      source: 'spring',
      intake: { name: 'Dealers' },
      runs: [{ outcome: 'written', route: { name: 'Enquiries' } }],
    });
  });

  test.each([
    ['outcome=failed', 1],
    ['outcome=written', 3],
    ['outcome=unrouted', 1],
    ['outcome=waiting', 0],
    ['since=2099-01-01T00:00:00Z', 0],
    ['limit=2', 2],
  ])('narrowed to %s are %i', async (query, count) => expect(await list(query)).toHaveLength(count));

  test('are narrowed to an intake and to a route, and their outcomes counted', async () => {
    expect(await list(`intake=${workspace.form}`)).toHaveLength(1);
    const [route] = await workspace.get<RouteLine[]>('/routes');
    expect(await list(`route=${route!.id}`)).toHaveLength(4);
    expect(await workspace.get('/submission-outcomes')).toEqual({ written: 3, failed: 1, unrouted: 1 });
  });
});

describe('records', () => {
  const list = (path: string) => workspace.get<Page<RecordShape>>(path);

  test.each([
    ['/contacts?email=M.ODUYA@fennwick.example', ['Maren Oduya']],
    ['/contacts?phone=07700900318', ['Maren Oduya']],
    ['/contacts?phone=%2B447700900318', ['Maren Oduya']],
    ['/contacts?q=fennwick', ['Siân Prothero', 'Maren Oduya']],
    ['/contacts?q=SIÂN', ['Siân Prothero']],
    ['/contacts?q=%25', []],
    ['/companies?q=van der', ['Van der Laan']],
    ['/deals?q=joost', ['Glass for Joost de Ruiter']],
    ['/leads', []],
  ])('%s finds %j', async (path, names) => expect((await list(path)).items.map(({ name }) => name)).toEqual(names));

  test('tell what they are linked to, both ways', async () => {
    const { items, total } = await list('/companies?q=Fennwick');
    expect(total).toBe(1);
    expect(items[0]!.links.contacts!.map(({ name }) => name).sort()).toEqual(['Maren Oduya', 'Siân Prothero']);
    expect(items[0]!.links.deals).toHaveLength(2);
  });

  test('are found by the intake that they came through', async () => {
    const through = async (kind: string, intake: string) =>
      (await list(`/${kind}?sort=name&through=${intake}`)).items.map(({ name }) => name);
    expect(await through('companies', workspace.endpoint)).toEqual(['Fennwick Academy', 'Van der Laan']);
    expect(await through('deals', workspace.endpoint)).toHaveLength(3);
    expect(await through('deals', workspace.form)).toEqual([]);
    expect(await through('deals', 'nothing-so-called')).toEqual([]);
    expect(await workspace.get(`/contacts/count?through=${workspace.endpoint}`)).toEqual({ total: 3 });
  });

  test('leave blank what did not fit', async () => {
    const [deal] = (await list('/deals?q=joost')).items;
    expect(deal!.values.bays).toBeUndefined();
  });
});

describe('finding anything', () => {
  const find = async (text: string) =>
    (await workspace.get<SearchHit[]>(`/search?q=${encodeURIComponent(text)}`)).map(
      ({ kind, name }) => `${kind} ${name}`,
    );

  test.each([
    ['maren', ['contact Maren Oduya', 'deal Glass for Maren Oduya', 'submission Maren Oduya, Dealers']],
    ['c-1', ['contact Maren Oduya']],
    ['vanderlaan.example', ['contact Joost de Ruiter', 'company Van der Laan', 'submission Joost de Ruiter, Dealers']],
    ['enquir', ['route Enquiries']],
    ['dealers', ['intake Dealers']],
    [' ', []],
    ["'; drop table contact; --", []],
  ])('by %s', async (text, hits) => expect(await find(text)).toEqual(hits));
});

test('the destination is told: pipelines with their stages, fields with their types', async () => {
  expect(await workspace.get<PipelineShape[]>('/pipelines')).toMatchObject([
    {
      key: 'new-builds',
      record: 'deal',
      stages: [{ key: 'enquiry', state: 'open' }, { key: 'design' }, { key: 'won', state: 'won' }],
    },
  ]);
  const fields = await workspace.get<FieldShape[]>('/fields');
  expect(fields).toContainEqual(
    expect.objectContaining({ record: 'deal', key: 'bays', type: 'whole-number', builtIn: false }),
  );
  expect(fields).toContainEqual(
    expect.objectContaining({ record: 'company', key: 'name', required: true, builtIn: true }),
  );
});

test('finishers are told with their parameters and an example', async () => {
  const finishers =
    await workspace.get<{ name: string; parameters: { properties: object }; example: object }[]>('/finishers');
  expect(finishers.map(({ name }) => name)).toEqual(FINISHERS.map(({ name }) => name));
  for (const { example } of finishers)
    expect(example).toMatchObject({ before: expect.any(String), after: expect.any(String) });
  expect(finishers.find(({ name }) => name === 'phone')!.parameters.properties).toHaveProperty('country');
});

test('what has expired is removed, and only that', async () => {
  await workspace.submit({ name: 'Key' }, { 'idempotency-key': 'old' });
  await workspace.submit({ name: 'Key' }, { 'idempotency-key': 'new' });
  await workspace.query(`update idempotency set at = now() - interval '25 hours' where key = 'given old'`);
  await server.database.gate('remove_expired');
  expect(await workspace.query<{ key: string }>('select key from idempotency')).toEqual([{ key: 'given new' }]);
});

test.each(['br', 'gzip'])('what is large comes compressed as %s, and the same', async (encoding) => {
  const ask = (accepted: string) =>
    fetch(`${server.base}/api/v1/fields`, {
      headers: { authorization: `Bearer ${workspace.token}`, 'accept-encoding': accepted },
    });
  const [plain, compressed] = [await ask('identity'), await ask(encoding)];
  expect([plain.headers.get('content-encoding'), compressed.headers.get('content-encoding')]).toEqual([null, encoding]);
  expect(await compressed.json()).toEqual(await plain.json());
  expect(compressed.headers.get('vary')).toContain('accept-encoding');
});

test('what is watched is told at once, not gathered to be compressed', async () => {
  const watching = new AbortController();
  const { headers } = await fetch(`${server.base}/api/v1/events`, {
    headers: { authorization: `Bearer ${workspace.token}`, 'accept-encoding': 'br, gzip' },
    signal: watching.signal,
  });
  expect(headers.get('content-encoding')).toBeNull();
  watching.abort();
});
