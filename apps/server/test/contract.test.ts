import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { JsonObject } from '@haycart/core';
import { routeFrom } from './support/routes';
import { newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
let submission: string;
let route: string;

beforeAll(async () => {
  server = await TestServer.start(await newDatabase());
  workspace = await TestWorkspace.make(server);
  route = await workspace.publish();
  submission = await workspace.submit({ name: 'Ada Weir', email: 'ada@weir.example', company: 'Weir', bays: '3' });
  await until(
    () => workspace.get<{ state: string }>(`/submissions/${submission}`),
    ({ state }) => state !== 'waiting',
  );
});
afterAll(() => server.stop());

const first = async (path: string) => {
  const body = await workspace.get<JsonObject[] | { items: JsonObject[] }>(path);
  return (Array.isArray(body) ? body : body.items)[0]!;
};

describe('what scripts rely on', () => {
  test.each<[string, string[]]>([
    ['/intakes', ['id', 'key', 'kind', 'name', 'state']],
    ['/submissions', ['id', 'intake', 'receivedAt', 'payload', 'visit', 'runs']],
    ['/contacts', ['id', 'kind', 'number', 'values', 'links', 'owner', 'tags', 'createdAt', 'updatedAt']],
    ['/companies', ['id', 'kind', 'number', 'values', 'links', 'owner', 'tags', 'createdAt', 'updatedAt']],
    ['/deals', ['id', 'kind', 'number', 'values', 'links', 'owner', 'tags', 'createdAt', 'updatedAt']],
    ['/pipelines', ['id', 'key', 'name', 'record', 'stages']],
    ['/fields', ['record', 'key', 'label', 'type', 'required']],
    ['/routes', ['id', 'state']],
  ])('%s answers %j', async (path, properties) =>
    expect(Object.keys(await first(path))).toEqual(expect.arrayContaining(properties)),
  );

  test('a run tells its outcome, its plan and its account', async () => {
    const { runs } = await workspace.get<{ runs: { id: string }[] }>(`/submissions/${submission}`);
    const run = await workspace.get<JsonObject>(`/runs/${runs[0]!.id}`);
    expect(run).toMatchObject({ outcome: 'written', reason: null });
    expect(Object.keys(run)).toEqual(expect.arrayContaining(['plan', 'startedAt', 'finishedAt', 'account']));
    expect((run.plan as JsonObject).outcome).toBe('write');
    expect(run.account).toEqual(
      expect.arrayContaining([expect.objectContaining({ step: 'created', text: expect.any(String) })]),
    );
  });

  test('records carry the values that are fixed, by their keys', async () => {
    expect((await first('/contacts')).values).toMatchObject({
      email: 'ada@weir.example',
      emails: ['ada@weir.example'],
      full_name: 'Ada Weir',
      source: 'direct',
    });
    expect((await first('/companies')).values).toMatchObject({ name: 'Weir', domain: 'weir.example' });
    expect((await first('/deals')).values).toMatchObject({
      name: 'Glass for Ada Weir',
      pipeline: 'new-builds',
      stage: 'enquiry',
      status: 'open',
      bays: 3,
    });
  });

  test('history names its cause, and each value its before, its after and its trace', async () => {
    const { id } = await first('/contacts');
    const [entry] = await workspace.get<JsonObject[]>(`/contacts/${id as string}/history`);
    expect(entry).toMatchObject({ cause: { kind: 'run' }, diff: { created: expect.any(Object) } });
    const email = (entry!.values as JsonObject[]).find(({ field }) => field === 'email');
    expect(email).toMatchObject({
      before: null,
      after: 'ada@weir.example',
      trace: { parts: [{ text: 'ada@weir.example' }] },
    });
  });

  test('a route is made as a paused draft, published as a version, paused and resumed', async () => {
    const made = await workspace.call<JsonObject>('POST', '/routes', { definition: routeFrom(workspace.form) });
    expect([made.status, made.body.state]).toEqual([201, 'paused']);
    expect(made.body.draft).toMatchObject({ format: 'haycart.route/1' });
    const at = `/routes/${made.body.id as string}`;
    expect((await workspace.call('POST', `${at}/resume`)).status).toBe(409);
    expect((await workspace.call<JsonObject>('POST', `${at}/publish`, { note: 'First' })).body).toEqual({ version: 1 });
    expect((await workspace.call<JsonObject>('POST', `${at}/pause`)).body.state).toBe('paused');
    expect((await workspace.call<JsonObject>('POST', `${at}/resume`)).body.state).toBe('live');
  });

  test('rehearsing answers a plan for a stored submission, a payload, and a definition that nobody saved', async () => {
    const payload = { name: 'Bo', email: 'bo@fern.example' };
    for (const [path, body] of [
      [`/routes/${route}/rehearse`, { submissionId: submission }],
      [`/routes/${route}/rehearse`, { payload, visit: { utm_source: 'fair' } }],
      ['/rehearse', { definition: routeFrom(workspace.endpoint), payload }],
    ] as const) {
      const { status, body: plan } = await workspace.call<JsonObject>('POST', path, body);
      expect([status, plan.outcome]).toEqual([200, 'write']);
      expect(Object.keys(plan)).toEqual(expect.arrayContaining(['writes', 'diff', 'touches', 'problems']));
    }
    expect((await workspace.get<{ total: number }>('/contacts')).total).toBe(1);
  });

  test.each(['/connections', '/decisions/nothing', '/nothing', '/routes/x/nothing'])(
    '%s is not there and says so',
    async (path) =>
      expect((await workspace.call<JsonObject>('GET', path)).body).toMatchObject({ status: 404, code: 'not-found' }),
  );

  test.each([
    ['GET', '/submissions/nonsense'],
    ['GET', '/runs/nonsense'],
    ['GET', '/contacts/nonsense'],
    ['GET', '/intakes/nonsense'],
    ['PATCH', '/pipelines/nonsense'],
    ['POST', '/routes/nonsense/publish'],
  ])('%s %s is a problem of 404', async (method, path) =>
    expect((await workspace.call<JsonObject>(method, path, method === 'GET' ? undefined : {})).body).toMatchObject({
      status: 404,
    }),
  );
});

describe('a list', () => {
  interface Listed {
    items: { id: string }[];
    next?: string;
    total: number;
  }
  const page = (after: string | undefined, limit = 7) =>
    workspace.get<Listed>(`/submissions?limit=${limit}${after ? `&after=${encodeURIComponent(after)}` : ''}`);

  test('read page by page while more arrives repeats none and misses none that were there', async () => {
    const there: string[] = [];
    for (let n = 0; n < 20; n += 1) there.push(await workspace.submit({ name: `N${n}`, email: `n${n}@fern.example` }));
    const read: string[] = [];
    let next: string | undefined;
    do {
      const found = await page(next);
      read.push(...found.items.map(({ id }) => id));
      await workspace.submit({ name: 'Later', email: `later${read.length}@fern.example` });
      next = found.next;
    } while (next);
    expect(new Set(read).size).toBe(read.length);
    expect(read).toEqual(expect.arrayContaining([submission, ...there]));
    expect(read.slice(0, 7)).toEqual(there.slice(-7).reverse());
  });

  test('ends without a next, and with the whole count on every page', async () => {
    const whole = await page(undefined, 200);
    expect(whole.next).toBeUndefined();
    expect(whole.items).toHaveLength(whole.total);
    expect((await page(undefined, 2)).total).toBe(whole.total);
  });

  test.each([
    ['limit=0', 'limit'],
    ['limit=x', 'limit'],
    ['limit=1000', 'limit'],
    ['after=nonsense', 'after'],
    ['colour=red', 'fit'],
  ])('with %s is refused with a reason', async (query, word) => {
    const { status, body } = await workspace.call<JsonObject>('GET', `/submissions?${query}`);
    expect([status, body.detail]).toEqual([422, expect.stringContaining(word)]);
  });
});
