import { request } from 'node:http';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { FormDomainShape, ProblemBody } from '@haycart/api';
import { TestNameServer } from './support/name-server';
import { newDatabase, TestServer, TestWorkspace } from './support/test-server';

let names: TestNameServer;
let server: TestServer;
let one: TestWorkspace;
let other: TestWorkspace;

beforeAll(async () => {
  names = await TestNameServer.start();
  server = await TestServer.start(await newDatabase(), { nameServer: names.address });
  one = await TestWorkspace.make(server);
  other = await TestWorkspace.make(server);
});
afterAll(async () => {
  await server.stop();
  names.stop();
});

type Answered = { status: number; body: string; headers: Record<string, unknown> };

/** Asks under another name, as a browser does for a domain that leads here. */
function ask(host: string, path: string, method = 'GET', body = ''): Promise<Answered> {
  return new Promise((resolve, reject) => {
    const headers = { host, ...(body ? { 'content-type': 'application/json' } : {}) };
    const sent = request(`${server.base}${path}`, { method, headers }, (response) => {
      let text = '';
      response.setEncoding('utf8').on('data', (chunk: string) => (text += chunk));
      response.on('end', () => resolve({ status: response.statusCode!, body: text, headers: response.headers }));
    });
    sent.on('error', reject);
    sent.end(body);
  });
}
/** Domains are a person's affair. */
const people = new Map<TestWorkspace, Promise<TestWorkspace['call']>>();
async function asPerson<Answer>(workspace: TestWorkspace, method: string, path: string, body?: unknown) {
  const person = people.get(workspace) ?? workspace.signIn();
  people.set(workspace, person);
  return (await person)<Answer>(method, path, body);
}
const add = (workspace: TestWorkspace, host: string) =>
  asPerson<FormDomainShape & ProblemBody>(workspace, 'POST', '/form-domains', { host });
const check = (workspace: TestWorkspace, host: string) =>
  asPerson<FormDomainShape & ProblemBody>(workspace, 'POST', `/form-domains/${host}/check`);

/** A domain that its workspace has proven to be theirs. */
async function proven(workspace: TestWorkspace, host: string): Promise<FormDomainShape> {
  const { record } = (await add(workspace, host)).body;
  await names.enter(record.name, record.text);
  return (await check(workspace, host)).body;
}

test('a domain leads nowhere before it is proven, and says what is missing', async () => {
  const { status, body } = await add(one, 'https://Unproven.Weir.example/');
  expect([status, body]).toMatchObject([
    201,
    { host: 'unproven.weir.example', provenAt: null, record: { name: '_haycart.unproven.weir.example' } },
  ]);
  const looked = await check(one, body.host);
  expect(looked.body).toMatchObject({ provenAt: null, problem: expect.stringContaining('There is no TXT record') });
  await names.enter(body.record.name, 'haycart-proof=somebody-else');
  expect((await check(one, body.host)).body.problem).toContain('says something else: “haycart-proof=somebody-else”');
  expect((await ask(body.host, `/f-${one.key}`)).body).not.toContain('Ask &#60;us&#62;');
});

test('a proven domain has the forms of its workspace, by their short address too, and nothing else', async () => {
  const host = 'forms.weir.example';
  expect(await proven(one, host)).toMatchObject({ host, problem: null, provenAt: expect.any(String) });
  for (const path of [`/f-${one.key}`, `/f/f-${one.key}?lang=en`]) {
    const form = await ask(`${host}:8080`, path);
    expect([form.status, form.body.includes('Ask &#60;us&#62;')]).toEqual([200, true]);
  }
  expect((await ask(host, `/embed/f-${one.key}.js`)).status).toBe(200);
  expect((await ask(host, '/forms/form.css')).status).toBe(200);
  const answers = JSON.stringify({ name: 'Ida', email: 'ida@weir.example' });
  expect((await ask(host, `/in/${one.form}`, 'POST', answers)).status).toBe(202);
  for (const path of [`/f/f-${other.key}`, `/f-${other.key}`, '/', '/api/v1/session', '/intakes', '/healthz'])
    expect([path, (await ask(host, path)).status]).toEqual([path, 404]);
  expect((await ask(host, '/api/v1/session', 'POST', '{}')).status).toBe(404);
  expect((await ask('127.0.0.1', '/healthz')).status).toBe(200);
});

test('a domain belongs to one workspace, whoever claims it too', async () => {
  const host = 'shared.weir.example';
  await proven(one, host);
  const { record } = (await add(other, host)).body;
  await names.enter(record.name, record.text);
  expect(await check(other, host)).toMatchObject({ status: 409, body: { code: 'conflict' } });
  expect((await ask(host, `/f-${one.key}`)).status).toBe(200);
  expect((await asPerson(one, 'DELETE', `/form-domains/${host}`)).status).toBe(204);
  expect((await check(other, host)).body.provenAt).not.toBeNull();
  expect((await ask(host, `/f-${other.key}`)).status).toBe(200);
});

test('a domain whose proof is gone leads nowhere any more', async () => {
  const host = 'sold.weir.example';
  const { record } = await proven(one, host);
  await names.enter(record.name);
  expect((await check(one, host)).body).toMatchObject({ provenAt: null });
  expect((await ask(host, `/f/f-${one.key}`)).status).toBe(200);
  expect((await ask(host, `/f-${one.key}`)).status).toBe(403);
});

test.each([
  ['127.0.0.1', 422],
  ['co.uk', 422],
  ['forms.weir.example', 409],
])('%s is not taken: %i', async (host, status) => expect((await add(one, host)).status).toBe(status));

test('there is no checking or removing what is another’s', async () => {
  expect((await check(other, 'forms.weir.example')).status).toBe(404);
  expect((await asPerson(other, 'DELETE', '/form-domains/forms.weir.example')).status).toBe(404);
  expect(await other.get<FormDomainShape[]>('/form-domains')).toMatchObject([{ host: 'shared.weir.example' }]);
});
