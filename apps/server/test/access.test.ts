import { existsSync, mkdtempSync, writeFileSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type {
  IntakeShape,
  NewTokenShape,
  PersonLinkShape,
  PersonShape,
  ProblemBody,
  SessionLine,
  TokenLine,
} from '@haycart/api';
import { LIMITS } from '@haycart/core';
import pg from 'pg';
import { Webhook } from 'standardwebhooks';
import { asOwner, newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

const PASSWORD = 'a long password';
const CHANGED = 'another long one 7';

let server: TestServer;
let workspace: TestWorkspace;
let person: TestWorkspace['call'];

beforeAll(async () => {
  server = await TestServer.start(await newDatabase(), { background: false });
});
beforeEach(async () => {
  workspace = await TestWorkspace.make(server);
  person = await workspace.signIn();
});
afterAll(() => server.stop());

const email = () => `${workspace.key}@quillfern.example`;
const signIn = (password: string, headers: Record<string, string> = {}, as = email()) =>
  server.postJson('/api/v1/session', { email: as, password }, headers);
const as = async <Answer>(token: string, method: string, path: string, body?: unknown) => {
  const response = await fetch(`${server.base}/api/v1${path}`, {
    method,
    headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  const text = await response.text();
  return { status: response.status, body: (text ? JSON.parse(text) : null) as Answer };
};
async function asAdmin(statement: string): Promise<void> {
  const admin = new pg.Client({ connectionString: asOwner(server.databaseUrl) });
  await admin.connect();
  await admin.query(statement);
  await admin.end();
}

describe('a token', () => {
  const make = async (scope: string) =>
    (await person<NewTokenShape>('POST', '/tokens', { name: `A ${scope} token`, scope, days: 1 })).body;

  test('does what its scope allows, and never what needs a person', async () => {
    const [read, send, all] = [await make('read'), await make('send'), await make('all')];
    const intake = { kind: 'endpoint', name: 'By a script' };
    const people = { name: 'Eve', email: 'eve@weir.example' };
    const statuses = async (token: string) => [
      (await as(token, 'GET', '/contacts')).status,
      (await as(token, 'GET', '/sheets/nothing')).status,
      (await as(token, 'POST', '/intakes', intake)).status,
      (await as(token, 'POST', '/people', people)).status,
      (await as(token, 'POST', '/tokens', { name: 'x', scope: 'all', days: 1 })).status,
      (await as(token, 'POST', '/form-domains', { host: 'forms.weir.example' })).status,
      (await as(token, 'PATCH', `/intakes/${workspace.endpoint}`, { signed: true })).status,
    ];
    expect(await statuses(read.secret)).toEqual([200, 404, 403, 403, 403, 403, 403]);
    expect(await statuses(send.secret)).toEqual([403, 404, 403, 403, 403, 403, 403]);
    expect(await statuses(all.secret)).toEqual([200, 404, 201, 403, 403, 403, 403]);
  });

  test('is listed with its last use, revoked, and ends by its time', async () => {
    const token = await make('read');
    await as(token.secret, 'GET', '/contacts');
    const listed = (await person<TokenLine[]>('GET', '/tokens')).body;
    expect(listed.find(({ id }) => id === token.id)).toMatchObject({
      scope: 'read',
      by: 'Robin Nye',
      usedAt: expect.any(String),
    });
    expect(JSON.stringify(listed)).not.toContain(token.secret);
    await person('DELETE', `/tokens/${token.id}`);
    expect((await as(token.secret, 'GET', '/contacts')).status).toBe(401);
    const late = await make('read');
    await workspace.query(`update api_token set expires_at = now() - interval '1 second' where id = '${late.id}'`);
    expect((await as(late.secret, 'GET', '/contacts')).status).toBe(401);
  });

  test('ends with whoever made it', async () => {
    const invited = await person<PersonShape & { link: PersonLinkShape }>('POST', '/people', {
      name: 'Ida',
      email: `ida-${workspace.key}@weir.example`,
    });
    const cookie = await welcome(invited.body.link.address, CHANGED);
    const made = await fetch(`${server.base}/api/v1/tokens`, {
      method: 'POST',
      headers: { cookie, 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'Hers', scope: 'read', days: 30 }),
    });
    const { secret } = (await made.json()) as NewTokenShape;
    expect((await as(secret, 'GET', '/contacts')).status).toBe(200);
    await person('PATCH', `/people/${invited.body.key}`, { active: false });
    expect((await as(secret, 'GET', '/contacts')).status).toBe(401);
  });
});

async function welcome(address: string, password: string): Promise<string> {
  const answer = await server.postJson(`/api/v1/session/link/${address.split('/').pop()}`, { password });
  expect(answer.status).toBe(204);
  return answer.headers.get('set-cookie')!.split(';')[0]!;
}

describe('a password', () => {
  test('is set by the one who is invited alone, by a link that works once', async () => {
    const address = `bo-${workspace.key}@weir.example`;
    const { body } = await person<{ link: PersonLinkShape }>('POST', '/people', { name: 'Bo', email: address });
    const link = `/api/v1/session/link/${body.link.address.split('/').pop()}`;
    expect((await signIn(CHANGED, {}, address)).status).toBe(401);
    expect(await (await fetch(`${server.base}${link}`)).json()).toEqual({ name: 'Bo', email: address });
    expect((await server.postJson(link, { password: 'password123' })).status).toBe(422);
    await welcome(body.link.address, CHANGED);
    expect((await server.postJson(link, { password: CHANGED })).status).toBe(404);
    expect((await signIn(CHANGED, {}, address)).status).toBe(204);
  });

  test.each(['short', 'password12', 'qwertyuiop', 'aaaaaaaaaaaa', '1234567890'])(
    'is refused when it is %s',
    async (weak) => {
      const { status, body } = await person<ProblemBody>('PUT', '/account/password', { old: PASSWORD, password: weak });
      expect([status, body.errors?.[0]?.code]).toEqual([422, 'weak-password']);
    },
  );

  test('is changed with the old one, which ends all other sessions', async () => {
    const other = await workspace.signIn();
    expect((await person('PUT', '/account/password', { old: 'wrong', password: CHANGED })).status).toBe(422);
    expect((await person('PUT', '/account/password', { old: PASSWORD, password: CHANGED })).status).toBe(204);
    expect([(await person('GET', '/session')).status, (await other('GET', '/session')).status]).toEqual([200, 401]);
    expect([(await signIn(PASSWORD)).status, (await signIn(CHANGED)).status]).toEqual([401, 204]);
  });

  test('is set anew by a link that a colleague hands on, and the link before it ends', async () => {
    const first = await person<PersonLinkShape>('POST', '/people/robin-nye/link');
    const second = await person<PersonLinkShape>('POST', '/people/robin-nye/link');
    expect(
      (await server.postJson(`/api/v1/session/link/${first.body.address.split('/').pop()}`, { password: CHANGED }))
        .status,
    ).toBe(404);
    await welcome(second.body.address, CHANGED);
    expect((await person('GET', '/session')).status).toBe(401);
  });
});

describe('a session', () => {
  test('is listed and ended', async () => {
    const other = await workspace.signIn();
    const { body } = await person<SessionLine[]>('GET', '/account/sessions');
    expect(body.map(({ current }) => current).sort()).toEqual([false, true]);
    await person('DELETE', `/account/sessions/${body.find(({ current }) => !current)!.id}`);
    expect((await other('GET', '/session')).status).toBe(401);
  });

  test.each([
    ['it was not used for days', `seen_at = now() - interval '${LIMITS.sessionIdle.most} days 1 minute'`],
    ['its time is over', `expires_at = now() - interval '1 second'`],
  ])('ends when %s', async (_, change) => {
    await workspace.query(`update session set ${change}`);
    expect((await person('GET', '/session')).status).toBe(401);
  });
});

describe('wrong tries', () => {
  const wrong = async (times: number, headers: Record<string, string> = {}) => {
    for (let n = 0; n < times; n += 1) await signIn('wrong', headers);
  };

  test('from elsewhere lock nobody out of a browser that they use', async () => {
    const cookies = (await signIn(PASSWORD)).headers.getSetCookie();
    const device = cookies.find((one) => one.startsWith('haycart_device'))!.split(';')[0]!;
    await asAdmin(
      `insert into wrong_try select 'account ' || translate(rtrim(encode(sha256(convert_to('${email()}', 'UTF8')), 'base64'), '='), '+/', '-_'), 60, now()`,
    );
    expect((await signIn(PASSWORD)).status).toBe(429);
    expect((await signIn(PASSWORD, { cookie: device })).status).toBe(204);
  });

  test('of one address behind a trusted proxy make only that one wait', async () => {
    const behind = await TestServer.start(server.databaseUrl, {
      role: 'web',
      background: false,
      trustedProxies: ['127.0.0.1'],
    });
    const from = (address: string, password: string) =>
      behind.postJson('/api/v1/session', { email: email(), password }, { 'x-forwarded-for': `9.9.9.9, ${address}` });
    for (let n = 0; n < 6; n += 1) await from('203.0.113.7', 'wrong');
    expect((await from('203.0.113.7', PASSWORD)).status).toBe(429);
    expect((await from('203.0.113.8', PASSWORD)).status).toBe(204);
    await behind.stop();
  });

  test('what a sender says of its address is not believed without a proxy', async () => {
    await wrong(6, { 'x-forwarded-for': '203.0.113.9' });
    expect((await signIn(PASSWORD, { 'x-forwarded-for': '203.0.113.10' })).status).toBe(429);
  });
});

describe('the doors', () => {
  const ask = (path: string, headers: Record<string, string>, base = server.base, method = 'GET') =>
    new Promise<{ status: number; headers: Record<string, string | string[] | undefined> }>((resolve, reject) => {
      const request = httpRequest(`${base}${path}`, { headers, method }, (answer) => {
        answer.resume();
        answer.on('end', () => resolve({ status: answer.statusCode!, headers: answer.headers }));
      });
      request.on('error', reject);
      request.end();
    });

  test('a page of another site cannot sign anybody in, and a foreign name is not answered to', async () => {
    expect((await signIn(PASSWORD, { origin: 'https://evil.example' })).status).toBe(403);
    expect((await ask('/api/v1/session/options', { host: 'evil.example' })).status).toBe(403);
    expect((await ask('/healthz', { host: 'evil.example' })).status).toBe(200);
    expect((await ask(`/f/f-${workspace.key}`, { host: 'evil.example' })).status).toBe(200);
  });

  test('behind TLS cookies are for it alone, and it is asked for', async () => {
    const open = await TestServer.start(server.databaseUrl, {
      role: 'web',
      background: false,
      publicUrl: 'https://crm.weir.example',
    });
    const answer = await open.postJson(
      '/api/v1/session',
      { email: email(), password: PASSWORD },
      { origin: 'https://crm.weir.example' },
    );
    expect(answer.headers.get('set-cookie')).toMatch(/^__Host-haycart_session=[^;]+;.*Path=\/;.*Secure/);
    expect(answer.headers.get('strict-transport-security')).toBe('max-age=31536000');
    const session = answer.headers.get('set-cookie')!.split(';')[0]!;
    expect((await ask('/api/v1/session', { host: 'crm.weir.example', cookie: session }, open.base)).status).toBe(200);
    await open.stop();
  });

  test('the API is kept nowhere, and nothing of the application goes into other pages', async () => {
    const { headers } = await ask('/api/v1/session/options', {});
    expect(headers).toMatchObject({
      'cache-control': 'no-store',
      'cross-origin-resource-policy': 'same-origin',
      'cross-origin-opener-policy': 'same-origin',
      'permissions-policy': expect.stringContaining('camera=()'),
    });
  });

  test('figures and the description of the API are for this machine, unless they are opened', async () => {
    const proxied = { 'x-forwarded-for': '203.0.113.7' };
    for (const [open, status] of [
      [[], 403],
      [['metrics', 'docs'], 200],
    ] as const) {
      const behind = await TestServer.start(server.databaseUrl, {
        role: 'web',
        background: false,
        trustedProxies: ['127.0.0.1'],
        open,
      });
      for (const path of ['/metrics', '/api/openapi.json'])
        expect([path, (await ask(path, proxied, behind.base)).status]).toEqual([path, status]);
      expect((await ask('/metrics', {}, behind.base)).status).toBe(200);
      await behind.stop();
    }
  });

  test('of three set-ups at once exactly one makes the first workspace, and guesses of the code are slow', async () => {
    const setupCodeFile = join(mkdtempSync(join(tmpdir(), 'haycart-code-')), 'setup-code');
    writeFileSync(setupCodeFile, 'code');
    const fresh = await TestServer.start(await newDatabase(), { role: 'web', background: false, setupCodeFile });
    const first = (code: string) =>
      fresh.postJson('/api/v1/session/first', {
        code,
        workspace: 'Weir',
        country: 'GB',
        currency: 'GBP',
        name: 'Ada',
        email: 'ada@weir.example',
        password: CHANGED,
      });
    const guesses = [];
    for (let n = 0; n < LIMITS.setUpGuesses.most + 1; n += 1) guesses.push((await first('guess')).status);
    expect(guesses).toEqual([...guesses.slice(0, -1).fill(403), 429]);
    const admin = new pg.Client({ connectionString: asOwner(fresh.databaseUrl) });
    await admin.connect();
    await admin.query('delete from wrong_try');
    await admin.end();
    expect(existsSync(setupCodeFile)).toBe(true);
    const made = await Promise.all([first('code'), first('code'), first('code')]);
    expect(made.map(({ status }) => status).sort()).toEqual([204, 404, 404]);
    expect(existsSync(setupCodeFile)).toBe(false);
    await fresh.stop();
  });
});

test('a token watches so many times at once, and again when one of them has ended', async () => {
  const open: AbortController[] = [];
  const watch = async () => {
    const watching = new AbortController();
    const { status } = await fetch(`${server.base}/api/v1/events`, {
      headers: { authorization: `Bearer ${workspace.token}` },
      signal: watching.signal,
    });
    if (status === 200) open.push(watching);
    return status;
  };
  for (let n = 0; n < LIMITS.streamsPerPerson.most; n += 1) expect(await watch()).toBe(200);
  expect(await watch()).toBe(429);
  open.pop()!.abort();
  await until(watch, (status) => status === 200);
  for (const watching of open) watching.abort();
});

describe('a signed intake', () => {
  const sign = async () =>
    (await person<IntakeShape & { secret: string }>('PATCH', `/intakes/${workspace.endpoint}`, { signed: true })).body
      .secret;
  const send = async (secret: string, id: string, body = '{"name":"Ada"}') => {
    const at = new Date();
    const response = await server.post(`/in/${workspace.endpoint}`, body, {
      'content-type': 'application/json',
      'webhook-id': id,
      'webhook-timestamp': String(Math.floor(at.getTime() / 1_000)),
      'webhook-signature': new Webhook(secret).sign(id, at, body),
    });
    return { status: response.status, body: (await response.json()) as { submissionId?: string } };
  };

  test('answers the same webhook-id as the first time, and keeps it once', async () => {
    const secret = await sign();
    const [first, again, other] = [
      await send(secret, 'msg_1'),
      await send(secret, 'msg_1'),
      await send(secret, 'msg_2'),
    ];
    expect([first.status, again.body, other.status]).toEqual([202, first.body, 202]);
    expect(await workspace.query('select id from submission')).toHaveLength(2);
  });

  test('takes the secret before beside the new one for a while', async () => {
    const old = await sign();
    const fresh = await sign();
    await server.postJson(`/in/${workspace.endpoint}`, {});
    expect([(await send(old, 'msg_1')).status, (await send(fresh, 'msg_2')).status]).toEqual([202, 202]);
    const oldest = old;
    await sign();
    expect((await send(oldest, 'msg_3')).status).toBe(401);
  });

  test('keeps its secret sealed', async () => {
    const secret = await sign();
    const [row] = await workspace.query<{ secret: string }>(
      `select secret from intake where key = '${workspace.endpoint}'`,
    );
    expect(row!.secret).toMatch(/^sealed1\./);
    expect(row!.secret).not.toContain(secret.slice(6));
  });
});
