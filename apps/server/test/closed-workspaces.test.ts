import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page, ProblemBody, SignInOptions, SubmissionShape } from '@haycart/api';
import { PLAIN_THEME } from '@haycart/core';
import { FormCounts } from '../src/forms/form-counts.service';
import { newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

let server: TestServer;
let one: TestWorkspace;
let other: TestWorkspace;

beforeAll(async () => {
  server = await TestServer.start(await newDatabase());
  one = await TestWorkspace.make(server);
  other = await TestWorkspace.make(server);
  await one.publish();
  await one.submit({ name: 'Ada', email: 'ada@weir.example', company: 'Weir' }, { 'idempotency-key': 'k' });
  await one.call('POST', '/intakes', { kind: 'endpoint', name: 'More' });
  const form = new FormData();
  form.append('file', new Blob(['x']), 'x.txt');
  await server.post(`/in/${one.endpoint}`, form);
  await server.postJson('/api/v1/session', { email: `${one.key}@quillfern.example`, password: 'a long password' });
  await until(
    () => one.query<{ n: number }>('select count(*)::int as n from run'),
    ([row]) => row!.n === 2,
  );
  await one.call('DELETE', '/pipelines/new-builds/stages/design');
  await one.query(
    `insert into lead (workspace_id, id, number, name, pipeline, stage, status, stage_since, created_at, updated_at)
     values ('${one.id}', '${one.id}', 1, 'L', 'new-builds', 'enquiry', 'open', now(), now(), now())`,
  );
  const person = await one.signIn();
  await person('POST', '/people/robin-nye/link');
  await person('POST', '/tags', { name: 'Press' });
  await person('POST', '/lists', { name: 'Readers' });
  await person('PUT', '/exchange-rates', { rates: [{ currency: 'EUR', from: '2026-01-01', rate: '0.85' }] });
  await fetch(`${server.base}/f/f-${one.key}`);
  await server.app.get(FormCounts).flush();
  await person('POST', '/themes', { name: 'Plain', theme: PLAIN_THEME });
  await one.attach('/form-pictures', 'mark.png', new Uint8Array([0x89, 0x50, 0x4e, 0x47]));
  await person('POST', `/forms/${one.form}/entry-link`);
  await person('POST', '/form-domains', { host: 'forms.weir.example' });
  const view = { record: 'contact', name: 'All', view: { columns: [{ field: 'email' }] }, shared: true };
  await person('POST', '/views', view);
  const made = async (name: string) =>
    (await person<{ id: string }>('POST', '/contacts', { values: { full_name: name, lists: ['readers'] } })).body.id;
  const contact = await made('Ida Weir');
  await person('DELETE', `/contacts/${await made('Gone Weir')}`);
  await person('POST', `/contacts/${contact}/notes`, { text: 'Called.' });
  await person('POST', `/contacts/${contact}/tasks`, { text: 'Call again' });
  const consent = { channel: 'email', state: 'given', words: 'You may write to me', place: 'by phone' };
  await person('POST', `/contacts/${contact}/consents`, consent);
  await one.attach(`/contacts/${contact}/files`, 'plan.txt', 'a plan');
  const [route] = await one.get<{ id: string }[]>('/routes');
  await person('POST', `/routes/${route!.id}/comparisons`, {});
  await person('POST', `/routes/${route!.id}/cases`, { name: 'A case', payload: { email: 'ada@weir.example' } });
  await person('PUT', `/intakes/${one.endpoint}/profile/names`, { names: { email: 'Where to write' } });
  await person('POST', `/routes/${route!.id}/here`);
  await one.query(`insert into decision (workspace_id, id, action, by) values ('${one.id}', 'd', 'leave', 'R')`);
  const twin = await made('Ida Weir');
  await person('POST', '/merges', { kind: 'contact', ids: [contact, twin] });
  await person('POST', '/scans', { kind: 'contact' });
  await person('PUT', '/identity/settings', { thresholds: { accept: 0.9, ask: 0.5 } });
  await until(
    () => one.query<{ n: number }>('select count(*)::int as n from likeness_model'),
    ([row]) => row!.n > 0,
  );
  await one.query(
    `insert into look_alike (workspace_id, record_kind, one_id, other_id, probability, pattern, found_at, checked_at)
     values ('${one.id}', 'contact', '${one.id}', '${other.id}', 0.5, '', now(), now())`,
  );
  await one.query(
    `insert into match_answer (workspace_id, submission_id, route_id, write, answer, by, at)
     select workspace_id, submission_id, route_id, 'person', '{"create":true}', 'R', now() from run limit 1`,
  );
  await person('POST', '/channels', { name: 'Care desk', by: 'chat', address: 'https://chat.example' });
  await one.query(
    `insert into hold_answer (workspace_id, submission_id, route_id, hold, what, approved, note, by, at)
     select workspace_id, submission_id, route_id, 0, 'approval', true, '', 'R', now() from run limit 1`,
  );
  await one.query(
    `insert into asked (workspace_id, id, submission_id, route_id, hold, what, address, asked_at, expires_at)
     select workspace_id, id, submission_id, route_id, 0, 'approval', 'r@q.example', now(), now() from run limit 1`,
  );
  await one.query(`insert into outbox_pace (workspace_id, lane, next_at) values ('${one.id}', 'mail', now())`);
  await one.query(
    `insert into consent_link (workspace_id, hash, mail_key, contact_id, address, channel, says)
     values ('${one.id}', 'a', 'a', '${one.id}', 'r@q.example', 'email', 'given')`,
  );
  await person('POST', '/value-sets', { name: 'North', values: ['Leeds'] });
  await person('POST', '/mail-templates', { name: 'Thanks', subject: 'Thanks', text: 'Thanks.' });
  await one.query(
    `insert into mail_file (workspace_id, key, name, type, size, bytes) values ('${one.id}', 'a', 'a', 'text/plain', 1, 'x')`,
  );
  const mailServer = { host: 'mail.example', port: 25, security: 'none', fromName: 'A', fromAddress: 'a@b.example' };
  await person('PUT', '/mail-server', mailServer);
  await person('PUT', '/text-gateway', { address: 'https://texts.example' });
  await one.query(
    `insert into sheet_file (workspace_id, id, intake_id, name, bytes, state, by, at)
     select workspace_id, id, id, 'people.csv', '', 'read', 'R', now() from intake limit 1`,
  );
  await one.query(
    `insert into sheet_refusal (workspace_id, file_id, row, text, reason) select workspace_id, id, 1, 'x', 'y' from sheet_file`,
  );
  await one.query(
    `insert into record_fullness (workspace_id, record_kind, total, by_field) values ('${one.id}', 'contact', 1, '{}')`,
  );
  await person('GET', '/outbox-signing');
  await one.query(
    `insert into outbox (workspace_id, id, submission_id, run_id, attempt_id, route_id, kind, target, key, body, state)
     select workspace_id, id, submission_id, id, attempt_id, route_id, 'post', 'https://hooks.weir.example', id::text, '{}', 'done' from run limit 1`,
  );
  // Who searches has what came last read.
  await one.get('/submissions?q=ada');
  await one.query(`insert into counter (workspace_id, name) values ('${one.id}', 'turn t')`);
  await one.query(
    `insert into assignment (workspace_id, id, record_kind, record_id, person, why, at) values ('${one.id}', gen_random_uuid(), 'deal', gen_random_uuid(), 'ada', 'named by the route', now())`,
  );
  await one.query(
    `insert into journey_step (workspace_id, record_kind, record_id, basis, to_basis, back, of, level, ago, source_id, visit_id, at, made_at)
     select workspace_id, 'deal', gen_random_uuid(), 0, 2, 1, 1, 5, 0, source_id, id, at, at from visit limit 1`,
  );
  await one.query(
    `insert into journey (workspace_id, record_id, nr, generation, steps) values ('${one.id}', gen_random_uuid(), 1000000, 1, '')`,
  );
  await one.query(
    `insert into acknowledged_count (workspace_id, intake_id, day, acknowledged) select workspace_id, id, current_date, 1 from intake limit 1`,
  );
  await person('POST', '/campaigns', { name: 'Spring', code: 'spring', source: 'a', medium: 'b' });
  await one.query(`insert into link_watch (workspace_id, looked_until) values ('${one.id}', 1) on conflict do nothing`);
  const links = [{ page: 'https://q.example', parameters: {} }];
  await person('POST', '/campaigns/spring/links', { links });
  const costs = [{ campaign: 'spring', from: '2026-03-01', to: '2026-03-01', amount: 1, currency: 'GBP' }];
  await person('POST', '/campaign-costs', { costs });
  await person('PUT', '/link-rules', { required: [], lowerCase: true, space: '-', words: {} });
  await one.query(
    `insert into wrong_link (workspace_id, id, parameters, problems, unknown_campaign) values ('${one.id}', 'a', '{}', '{}', true)`,
  );
  await person('PUT', '/channel-rules', { rules: [{ when: {}, channel: 'all' }], names: [] });
  await person('POST', '/source-changes', {});
  await person('POST', '/report-mails', { name: 'All', query: {} });
  await one.query(`insert into team (workspace_id, key, name) values ('${one.id}', 't', 'T')`);
  await one.query(
    `insert into team_member (workspace_id, team_key, person_id) select workspace_id, 't', id from person`,
  );
});
afterAll(() => server.stop());

const tables = () =>
  one.query<{ name: string }>(
    `select tablename as name from pg_tables where schemaname = 'public' and tablename not in ('wrong_try', 'job_worker') order by 1`,
  );
const owner = (table: string) => (table === 'workspace' ? 'id' : 'workspace_id');

describe('row-level security', () => {
  test('shows no row of any table to the other workspace, and every table was looked at with rows in it', async () => {
    const empty = [];
    for (const { name } of await tables()) {
      // A job empties it whenever something changed.
      if (name === 'journey_due')
        await one.query(`insert into journey_due (workspace_id, record_id) values ('${one.id}', gen_random_uuid())`);
      const own = await one.query(`select 1 from ${name} where ${owner(name)} = '${one.id}'`);
      if (!own.length) empty.push(name);
      expect([name, await other.query(`select 1 from ${name} where ${owner(name)} = '${one.id}'`)]).toEqual([name, []]);
    }
    expect(empty).toEqual([]);
  });

  test('shows no row at all without a workspace', async () => {
    for (const { name } of await tables())
      expect((await server.database.pool.query(`select 1 from ${name}`)).rows).toEqual([]);
  });

  test('lets nobody write into another workspace', async () => {
    await expect(
      other.query(`insert into team (workspace_id, key, name) values ('${one.id}', 'x', 'X')`),
    ).rejects.toThrow(/row-level security/);
    expect(await other.query(`update contact set full_name = 'x' returning id`)).toEqual([]);
  });

  test('is on for every table, and the server’s role cannot bypass it', async () => {
    const { rows } = await server.database.pool.query(
      `select relname from pg_class where relnamespace = 'public'::regnamespace and relkind = 'r' and not relrowsecurity`,
    );
    expect(rows).toEqual([]);
    const { rows: role } = await server.database.pool.query(
      'select rolsuper or rolbypassrls as free from pg_roles where rolname = current_user',
    );
    expect(role).toEqual([{ free: false }]);
  });

  test('keeps what arrived from being changed or removed by anybody', async () => {
    await expect(one.query(`update submission set body = ''`)).rejects.toThrow(/permission denied/);
    await expect(one.query('delete from submission')).rejects.toThrow(/permission denied/);
    await expect(one.query(`update attempt set summary = ''`)).rejects.toThrow(/permission denied/);
    await expect(one.query('delete from attempt')).rejects.toThrow(/permission denied/);
    await expect(one.query('delete from record_change')).rejects.toThrow(/permission denied/);
    await expect(one.query(`update consent set state = 'given'`)).rejects.toThrow(/permission denied/);
  });
});

describe('the API', () => {
  test('shows a token its own workspace only', async () => {
    const { items } = await one.get<Page<SubmissionShape>>('/submissions');
    expect(items).toHaveLength(2);
    expect((await other.get<Page<SubmissionShape>>('/submissions')).items).toEqual([]);
    expect((await other.call('GET', `/submissions/${items[0]!.id}`)).status).toBe(404);
    expect((await other.call('PATCH', `/intakes/${one.endpoint}`, { state: 'closed' })).status).toBe(404);
  });

  test('answers 404 for everything of another workspace, at every address with an id', async () => {
    const openapi = (await (await fetch(`${server.base}/api/openapi.json`)).json()) as {
      paths: Record<string, Record<string, unknown>>;
    };
    const kept = await one.query<{ kind: string; id: string }>(
      `select 'submissions' as kind, id from submission union all select 'runs', id from run union all select 'routes', id from route
       union all select 'contacts', id from contact union all select 'companies', id from company union all select 'deals', id from deal union all select 'leads', id from lead union all select 'intakes', id from intake
       union all select 'forms', id from intake where kind = 'form' union all select 'pipelines', id from pipeline
       union all select 'tokens', id from api_token union all select 'edits', id from record_edit`,
    );
    const ids = new Map(kept.map(({ kind, id }) => [kind, id]));
    const calls = Object.entries(openapi.paths).flatMap(([path, methods]) => {
      const id = ids.get(/^\/api\/v1\/([a-z-]+)\/\{\w+\}/.exec(path)?.[1] ?? '');
      const filled = path
        .replace('/api/v1', '')
        .replace(/\{\w+\}/, id ?? '')
        .replace(/\{\w+\}/g, '1');
      return id ? Object.keys(methods).map((method) => ({ method: method.toUpperCase(), path: filled })) : [];
    });
    expect(calls.length).toBeGreaterThan(45);
    const person = await other.signIn();
    const open: string[] = [];
    for (const { method, path } of calls) {
      const { status } = await person<ProblemBody | null>(
        method,
        path,
        method === 'GET' || method === 'DELETE' ? undefined : {},
      );
      // What is asked for wrongly is refused before anything is looked for.
      if (![404, 422].includes(status)) open.push(`${method} ${path.replace(/[0-9a-f-]{36}/, 'id')}: ${status}`);
    }
    expect(open).toEqual([]);
  });

  test.each(['/intakes', '/submissions', '/contacts', '/home', '/events'])(
    '%s wants a session or a token',
    async (path) => {
      const response = await fetch(`${server.base}/api/v1${path}`, { headers: { authorization: 'Bearer hc_wrong' } });
      expect([response.status, ((await response.json()) as ProblemBody).code]).toEqual([401, 'not-signed-in']);
    },
  );

  test.each<[string, string, unknown, number]>([
    ['GET', '/nothing', undefined, 404],
    ['GET', '/contacts/not-an-id', undefined, 404],
    ['GET', '/submissions?limit=9999', undefined, 422],
    ['GET', '/submissions?after=nonsense', undefined, 422],
    ['GET', '/submissions?colour=red', undefined, 422],
    ['GET', '/submissions?intake=%00', undefined, 422],
    ['POST', '/intakes', { kind: 'endpoint' }, 422],
    ['POST', '/intakes', { kind: 'endpoint', name: 'x', colour: 'red' }, 422],
    ['POST', '/intakes', { kind: 'form', name: 'x' }, 422],
    ['POST', '/intakes', { kind: 'fax', name: 'x' }, 422],
    ['POST', '/intakes', { kind: 'endpoint', name: 'x', settings: { colour: 'red' } }, 422],
    ['POST', '/intakes', { kind: 'endpoint', name: 'x', settings: 'red' }, 422],
    ['POST', '/forms', { name: 'x', form: { items: 1 } }, 422],
    ['POST', '/intakes', { kind: 'endpoint', name: 'Dealers' }, 409],
    ['POST', '/routes', { definition: 7 }, 422],
    ['POST', '/rehearse', { definition: {} }, 422],
    ['GET', '/runs/0', undefined, 404],
  ])('%s %s %j answers a problem with %i', async (method, path, body, status) => {
    const answer = await one.call<ProblemBody>(method, path, body);
    expect(answer.status).toBe(status);
    expect(answer.body).toMatchObject({ status, code: expect.any(String), detail: expect.stringMatching(/\.$/) });
  });

  test('describes itself, and routes by their schema', async () => {
    const openapi = (await (await fetch(`${server.base}/api/openapi.json`)).json()) as {
      openapi: string;
      paths: Record<string, unknown>;
    };
    expect(openapi.openapi).toBe('3.1.0');
    expect(Object.keys(openapi.paths)).toEqual(
      expect.arrayContaining(['/api/v1/intakes', '/api/v1/rehearse', '/api/v1/routes/{id}/publish']),
    );
    expect(((await (await fetch(`${server.base}/api/route.schema.json`)).json()) as { title: string }).title).toContain(
      'route',
    );
  });

  test('tells health, readiness and figures', async () => {
    for (const path of ['/healthz', '/readyz']) expect((await fetch(`${server.base}${path}`)).status).toBe(200);
    expect(await (await fetch(`${server.base}/metrics`)).text()).toMatch(/haycart_submissions_accepted_total \d/);
  });

  test('pages through a list without losing or repeating any', async () => {
    await server.postJson(
      `/in/${one.endpoint}`,
      Array.from({ length: 25 }, (_, n) => ({ n })),
    );
    const seen: string[] = [];
    let after = '';
    do {
      const page: Page<SubmissionShape> = await one.get(`/submissions?limit=10${after && `&after=${after}`}`);
      seen.push(...page.items.map(({ id }) => id));
      after = page.next ?? '';
    } while (after);
    expect([seen.length, new Set(seen).size]).toEqual([27, 27]);
  });
});

describe('signing in', () => {
  const signIn = (email: string, password: string) => server.postJson('/api/v1/session', { email, password });

  test('gives a cookie that scripts of a page cannot read and other sites do not send', async () => {
    const response = await signIn(`${one.key}@quillfern.example`, 'a long password');
    expect(response.status).toBe(204);
    expect(response.headers.get('set-cookie')).toMatch(/HttpOnly.*SameSite=Strict/i);
  });

  test('ends with the session', async () => {
    const cookie = (await signIn(`${one.key}@quillfern.example`, 'a long password')).headers
      .get('set-cookie')!
      .split(';')[0]!;
    const ask = () => fetch(`${server.base}/api/v1/session`, { headers: { cookie } });
    expect((await ask()).status).toBe(200);
    await fetch(`${server.base}/api/v1/session`, { method: 'DELETE', headers: { cookie } });
    expect((await ask()).status).toBe(401);
  });

  test('from another site changes nothing', async () => {
    const cookie = (await signIn(`${one.key}@quillfern.example`, 'a long password')).headers
      .get('set-cookie')!
      .split(';')[0]!;
    const response = await server.postJson(
      '/api/v1/intakes',
      { kind: 'endpoint', name: 'Evil' },
      { cookie, origin: 'https://evil.example' },
    );
    expect(response.status).toBe(403);
  });

  test('is refused the same way for a wrong address and a wrong password, and soon makes wait, longer each time', async () => {
    const answers = [];
    for (let n = 0; n < 6; n += 1) answers.push(await signIn(`${other.key}@quillfern.example`, 'wrong'));
    expect(answers.map(({ status }) => status)).toEqual([401, 401, 401, 401, 401, 429]);
    expect(Number(answers[5]!.headers.get('retry-after'))).toBeLessThanOrEqual(1);
    expect(await (await signIn('nobody@weir.example', 'wrong')).json()).toEqual(await answers[0]!.json());
  });

  test('offers no demo people, and no first start once there is a workspace', async () => {
    expect((await (await fetch(`${server.base}/api/v1/session/options`)).json()) as SignInOptions).toEqual({
      firstStart: false,
      demoPeople: [],
    });
    expect((await server.postJson('/api/v1/session/demo', { email: `${one.key}@quillfern.example` })).status).toBe(404);
    const first = {
      code: 'code',
      workspace: 'Evil',
      country: 'GB',
      currency: 'GBP',
      name: 'Eve',
      email: 'eve@weir.example',
      password: 'a long password',
    };
    expect((await server.postJson('/api/v1/session/first', first)).status).toBe(404);
  });
});

test('the first start makes a workspace with the right code only', async () => {
  const fresh = await TestServer.start(await newDatabase());
  try {
    const first = {
      code: 'wrong',
      workspace: 'Quillfern Glasshouses',
      country: 'gb',
      currency: 'gbp',
      name: 'Robin Nye',
      email: 'robin@quillfern.example',
      password: 'a long password',
    };
    expect((await fresh.postJson('/api/v1/session/first', first)).status).toBe(403);
    const made = await fresh.postJson('/api/v1/session/first', { ...first, code: 'code' });
    const cookie = made.headers.get('set-cookie')!.split(';')[0]!;
    expect(await (await fetch(`${fresh.base}/api/v1/session`, { headers: { cookie } })).json()).toMatchObject({
      workspace: { key: 'quillfern-glasshouses', defaultCountry: 'GB' },
    });
    expect(await (await fetch(`${fresh.base}/api/v1/pipelines`, { headers: { cookie } })).json()).toMatchObject([
      { key: 'sales' },
    ]);
  } finally {
    await fresh.stop();
  }
});

test('what changes is told to those who watch, and to no other workspace', async () => {
  const watch = async (workspace: TestWorkspace) => {
    const response = await fetch(`${server.base}/api/v1/events`, {
      headers: { authorization: `Bearer ${workspace.token}` },
    });
    return response.body!.pipeThrough(new TextDecoderStream()).getReader();
  };
  const [mine, theirs] = [await watch(one), await watch(other)];
  await one.submit({ name: 'Ada', email: 'ada@weir.example' });
  let heard = '';
  while (!heard.includes('records')) heard += (await mine.read()).value ?? '';
  await other.submit({ name: 'Bo' });
  let theirsHeard = '';
  while (!theirsHeard.includes('changed')) theirsHeard += (await theirs.read()).value ?? '';
  expect(theirsHeard).not.toContain('records');
  expect(heard).not.toContain('ada@');
  await Promise.all([mine.cancel(), theirs.cancel()]);
});
