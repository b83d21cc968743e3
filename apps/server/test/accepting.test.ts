import { createHmac, randomUUID } from 'node:crypto';
import { request } from 'node:http';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page, ProblemBody, SubmissionDetail, SubmissionShape } from '@haycart/api';
import pg from 'pg';
import { asOwner, newDatabase, TestServer, TestWorkspace } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
const address = () => `/in/${workspace.endpoint}`;
const count = async () => (await workspace.query<{ n: number }>('select count(*)::int as n from submission'))[0]!.n;

beforeAll(async () => {
  server = await TestServer.start(await newDatabase(), { role: 'accept' });
  const web = await TestServer.start(server.databaseUrl, { role: 'web' });
  workspace = await TestWorkspace.make(web);
});
afterAll(async () => {
  await workspace.server.stop();
  await server.stop();
});

const detail = (id: string) => workspace.get<SubmissionDetail>(`/submissions/${id}`);
const accepted = async (response: Response) => {
  expect(response.status).toBe(202);
  return ((await response.json()) as { submissionId: string }).submissionId;
};

describe('what is taken', () => {
  test('JSON, kept byte for byte with its visit', async () => {
    const body = '{ "name":"Åsa",\n"deep":{"list":[1,{"x":null}]}, "_visit": {"utm_source": "spring"} }';
    const id = await accepted(
      await server.post(`${address()}?utm_medium=email`, body, {
        'content-type': 'application/json; charset=utf-8',
        referer: 'https://q.example/p',
        'user-agent': 'Test/1',
      }),
    );
    const kept = await detail(id);
    expect(kept.raw).toBe(body);
    expect(kept.visit).toEqual({
      utm_source: 'spring',
      utm_medium: 'email',
      page: 'https://q.example/p',
      userAgent: 'Test/1',
    });
  });

  test('urlencoded and multipart, with a file', async () => {
    const first = await accepted(
      await server.post(
        address(),
        new URLSearchParams([
          ['a', '1'],
          ['a', '2'],
        ]),
      ),
    );
    expect((await detail(first)).payload).toEqual({ a: ['1', '2'] });
    const form = new FormData();
    form.append('name', 'Ada');
    form.append('photo', new Blob([Buffer.from([0, 1, 2, 255])], { type: 'image/png' }), 'site.png');
    const second = await detail(await accepted(await server.post(address(), form)));
    expect(second.payload).toMatchObject({ name: 'Ada', photo: { name: 'site.png', type: 'image/png', size: 4 } });
    const [file] = await workspace.query<{ bytes: Buffer }>(
      'select bytes from submission_file where submission_id = $1',
      [second.id],
    );
    expect([...file!.bytes]).toEqual([0, 1, 2, 255]);
  });

  test('up to 500 objects at once, all or none', async () => {
    const response = await server.postJson(
      address(),
      Array.from({ length: 500 }, (_, n) => ({ n })),
    );
    expect(((await response.json()) as { submissionIds: string[] }).submissionIds).toHaveLength(500);
    const before = await count();
    expect((await server.postJson(address(), [{ a: 1 }, 7])).status).toBe(422);
    expect(
      (
        await server.postJson(
          address(),
          Array.from({ length: 501 }, () => ({})),
        )
      ).status,
    ).toBe(422);
    expect(await count()).toBe(before);
  });

  test('whatever is hostile but readable: 10,000 keys, 100 levels, NUL, lone surrogates', async () => {
    const wide = Object.fromEntries(Array.from({ length: 10_000 }, (_, n) => [`k${n}`, n]));
    expect(
      Object.keys((await detail(await accepted(await server.postJson(address(), wide)))).payload as object),
    ).toHaveLength(10_000);
    await accepted(
      await server.post(address(), `${'{"a":'.repeat(100)}1${'}'.repeat(100)}`, { 'content-type': 'application/json' }),
    );
    const odd = '{"name":"a\\u0000b\\ud800", "__proto__": {"x": 1}, "rtl": "שלום 👩‍🌾"}';
    expect(
      (await detail(await accepted(await server.post(address(), odd, { 'content-type': 'application/json' })))).raw,
    ).toBe(odd);
  });

  test('an urlencoded body that is not UTF-8 is kept as it came and shown as unreadable', async () => {
    const id = await accepted(
      await server.post(address(), Buffer.from([0x61, 0x3d, 0xe9]), {
        'content-type': 'application/x-www-form-urlencoded',
      }),
    );
    const kept = await detail(id);
    expect(kept).toMatchObject({ payload: null, unreadable: expect.stringContaining('UTF-8') });
    expect(
      (await workspace.query<{ body: Buffer }>('select body from submission where id = $1', [id]))[0]!.body,
    ).toEqual(Buffer.from([0x61, 0x3d, 0xe9]));
  });
});

describe('what is refused', () => {
  const json = { 'content-type': 'application/json' };
  const cases: [string, () => Promise<Response>, number, string][] = [
    ['not JSON', () => server.post(address(), '{"a":', json), 400, 'unreadable'],
    ['an empty body', () => server.post(address(), '', json), 400, 'unreadable'],
    ['JSON that is not UTF-8', () => server.post(address(), Buffer.from([0x22, 0xff, 0x22]), json), 400, 'unreadable'],
    [
      'broken multipart',
      () => server.post(address(), 'nonsense', { 'content-type': 'multipart/form-data' }),
      400,
      'unreadable',
    ],
    ['JSON that is no object', () => server.post(address(), '"text"', json), 422, 'refused'],
    [
      '10,001 fields',
      () => server.postJson(address(), Object.fromEntries(Array.from({ length: 10_001 }, (_, n) => [`k${n}`, n]))),
      422,
      'refused',
    ],
    ['300 levels', () => server.post(address(), `${'{"a":'.repeat(300)}1${'}'.repeat(300)}`, json), 422, 'refused'],
    [
      '100,000 levels',
      () => server.post(address(), `${'['.repeat(100_000)}${']'.repeat(100_000)}`, json),
      422,
      'refused',
    ],
    ['an unknown intake', () => server.postJson('/in/gone', {}), 404, 'unknown-intake'],
    ['no intake', () => server.postJson('/in/', {}), 404, 'unknown-intake'],
    ['a strange intake', () => server.postJson(`/in/${'x'.repeat(3_000)}%00`, {}), 404, 'unknown-intake'],
    ['reading', () => fetch(`${server.base}${address()}`), 404, 'not-found'],
    ['2 MB', () => server.postJson(address(), { a: 'x'.repeat(2_000_000) }), 413, 'too-large'],
    [
      '2 MB without a length',
      () =>
        server.post(
          address(),
          new ReadableStream({
            start: (to) => {
              to.enqueue(Buffer.alloc(2_000_000, 0x20));
              to.close();
            },
          }) as never,
          json,
        ),
      413,
      'too-large',
    ],
    ['another type', () => server.post(address(), 'a', { 'content-type': 'text/plain' }), 415, 'wrong-type'],
    [
      'a long idempotency key',
      () => server.postJson(address(), {}, { 'idempotency-key': 'k'.repeat(300) }),
      422,
      'refused',
    ],
  ];

  test.each(cases)('%s', async (name, send, status, code) => {
    const before = await count();
    const response = await (name.includes('without a length') ? sendWithoutLength() : send());
    expect(response.status).toBe(status);
    expect(response.headers.get('content-type')).toBe('application/problem+json');
    const problem = (await response.json()) as ProblemBody;
    expect(problem).toMatchObject({ status, code, title: expect.any(String), detail: expect.stringMatching(/\.$/) });
    expect(JSON.stringify(problem)).not.toMatch(/at .*\.(ts|js):\d+/);
    expect(await count()).toBe(before);
  });

  function sendWithoutLength(): Promise<Response> {
    return new Promise((resolve, reject) => {
      const post = request(
        `${server.base}${address()}`,
        { method: 'POST', headers: { ...json, 'transfer-encoding': 'chunked' } },
        (answer) => {
          const chunks: Buffer[] = [];
          answer.on('data', (chunk: Buffer) => chunks.push(chunk));
          answer.on('end', () =>
            resolve(
              new Response(Buffer.concat(chunks), {
                status: answer.statusCode!,
                headers: { 'content-type': answer.headers['content-type']! },
              }),
            ),
          );
        },
      );
      post.on('error', reject);
      post.write(Buffer.alloc(1_200_000, 0x20));
    });
  }

  test('files of more than 25 MiB', async () => {
    const form = new FormData();
    form.append('file', new Blob([Buffer.alloc(26 * 1_048_576)]), 'big.bin');
    const answer = await server.post(address(), form).then(
      (response) => response.status,
      () => 'closed',
    );
    expect([413, 'closed']).toContain(answer);
  });
});

describe('an idempotency key', () => {
  test('gives the first answer again and keeps nothing twice', async () => {
    const key = { 'idempotency-key': randomUUID() };
    const first = await accepted(await server.postJson(address(), { n: 1 }, key));
    const before = await count();
    expect(await accepted(await server.postJson(address(), { n: 1 }, key))).toBe(first);
    expect(await count()).toBe(before);
  });

  test('with another body is refused', async () => {
    const key = { 'idempotency-key': randomUUID() };
    await server.postJson(address(), { n: 1 }, key);
    const response = await server.postJson(address(), { n: 2 }, key);
    expect([response.status, ((await response.json()) as ProblemBody).code]).toEqual([422, 'idempotency-mismatch']);
  });

  test('sent twenty times at once keeps one', async () => {
    const key = { 'idempotency-key': randomUUID() };
    const ids = await Promise.all(
      Array.from({ length: 20 }, async () => accepted(await server.postJson(address(), { once: true }, key))),
    );
    expect(new Set(ids).size).toBe(1);
    expect(await workspace.query('select id from submission where id = $1', [ids[0]])).toHaveLength(1);
  });
});

test('a signed intake takes only what its secret signed', async () => {
  const { body } = await workspace.call<{ key: string }>('POST', '/intakes', { kind: 'endpoint', name: 'Signed' });
  const person = await workspace.signIn();
  const { body: changed } = await person<{ secret: string }>('PATCH', `/intakes/${body.key}`, { signed: true });
  const payload = '{"n":1}';
  const stamp = String(Math.floor(Date.now() / 1_000));
  const sign = (time: string) =>
    createHmac('sha256', Buffer.from(changed.secret.slice('whsec_'.length), 'base64'))
      .update(`m1.${time}.${payload}`)
      .digest('base64');
  const send = (signature: string, time = stamp) =>
    server.post(`/in/${body.key}`, payload, {
      'content-type': 'application/json',
      'webhook-id': 'm1',
      'webhook-timestamp': time,
      'webhook-signature': `v1,${signature}`,
    });
  expect((await send(sign(stamp))).status).toBe(202);
  const old = String(Number(stamp) - 3_600);
  for (const refused of [
    await send('AAAA'),
    await send(sign(old), old),
    await server.post(`/in/${body.key}`, payload, { 'content-type': 'application/json' }),
  ]) {
    expect([refused.status, ((await refused.json()) as ProblemBody).code]).toEqual([401, 'signature']);
  }
});

test('a closed intake answers 409, an overrun one 429 with Retry-After', async () => {
  const { body } = await workspace.call<{ key: string }>('POST', '/intakes', { kind: 'endpoint', name: 'Busy' });
  await workspace.call('PATCH', `/intakes/${body.key}`, { perMinute: 2 });
  const answers = [];
  for (let n = 0; n < 3; n += 1) answers.push(await server.postJson(`/in/${body.key}`, { n }));
  expect(answers.map(({ status }) => status)).toEqual([202, 202, 429]);
  expect(Number(answers[2]!.headers.get('retry-after'))).toBeGreaterThan(0);
  const { body: other } = await workspace.call<{ key: string }>('POST', '/intakes', {
    kind: 'endpoint',
    name: 'Closed',
  });
  await workspace.call('PATCH', `/intakes/${other.key}`, { state: 'closed' });
  expect((await server.postJson(`/in/${other.key}`, {})).status).toBe(409);
});

test('a full disk stops accepting with 503 and Retry-After, and nothing half written', async () => {
  const admin = new pg.Client({ connectionString: asOwner(server.databaseUrl) });
  await admin.connect();
  await admin.query(
    `create function disk_full() returns trigger language plpgsql as $$ begin raise exception 'could not extend file' using errcode = '53100'; end $$`,
  );
  await admin.query('create trigger disk_full after insert on submission for each row execute function disk_full()');
  try {
    const before = await count();
    const single = await server.postJson(address(), { n: 1 });
    const several = await server.postJson(address(), [{ n: 1 }, { n: 2 }]);
    for (const answer of [single, several]) {
      expect(answer.status).toBe(503);
      expect(answer.headers.get('retry-after')).toBe('60');
    }
    expect(await count()).toBe(before);
  } finally {
    await admin.query('drop function disk_full cascade');
    await admin.end();
  }
  expect((await server.postJson(address(), { n: 1 })).status).toBe(202);
});

describe('a hosted form', () => {
  const html = { accept: 'text/html', 'content-type': 'application/x-www-form-urlencoded' };
  const page = () =>
    fetch(`${server.base}/f/f-${workspace.key}?utm_source=spring&page=https://q.example/p"><script>`).then((response) =>
      response.text(),
    );

  test('shows its questions, safe from what its address carries', async () => {
    const shown = await page();
    expect(shown).toContain('Ask &#60;us&#62;');
    expect(shown).toContain('name="_once"');
    expect(shown).not.toContain('<script>"');
    expect(shown).not.toContain('p"><script>');
  });

  test('without JavaScript answers refused fields by name, keeping what was typed', async () => {
    const response = await server.post(
      `/in/${workspace.form}`,
      new URLSearchParams({
        name: 'Ada "W" <b>',
        email: 'not one',
        grow: 'stone',
        _visit: '{"utm_source":"spring"}',
      }).toString(),
      html,
    );
    const shown = await response.text();
    expect(response.status).toBe(422);
    expect(shown).toContain('value="Ada &#34;W&#34; &#60;b&#62;"');
    expect(shown).toMatch(/id="e-email">Please check the address/);
    expect(shown).toMatch(/id="e-grow">Please choose one/);
    expect(shown).toContain('utm_source');
  });

  test('takes good answers once, even when sent twice, and says thank you', async () => {
    const once = /name="_once" value="([^"]+)"/.exec(await page())![1]!;
    const before = await count();
    const send = () =>
      server.post(
        `/in/${workspace.form}`,
        new URLSearchParams({
          name: 'Ada',
          email: 'ada@weir.example',
          ok: 'yes',
          _once: once,
          _visit: '{"utm_source":"spring"}',
        }).toString(),
        html,
      );
    const [first, second] = await Promise.all([send(), send()]);
    expect([first!.status, second!.status]).toEqual([200, 200]);
    expect(await first!.text()).toMatch(/Thank you, Ada[^]*We have it\./);
    expect(await count()).toBe(before + 1);
    const { items } = await workspace.get<Page<SubmissionShape>>(`/submissions?intake=${workspace.form}&limit=1`);
    expect(items[0]).toMatchObject({ source: 'spring', email: 'ada@weir.example' });
  });

  test('answers a script with the place of each refused answer', async () => {
    const response = await server.postJson(`/in/${workspace.form}`, { name: '', email: 'x' });
    expect(((await response.json()) as ProblemBody).errors?.map(({ at, code }) => [at, code])).toEqual([
      ['/name', 'required'],
      ['/email', 'not-an-email'],
    ]);
  });
});

test('a server that only accepts has no API', async () => {
  expect((await fetch(`${server.base}/api/v1/intakes`)).status).toBe(404);
});
