import { spawn, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import pg from 'pg';
import type { SubmissionDetail } from '@haycart/api';
import { asOwner, newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

const main = fileURLToPath(new URL('../dist/main.js', import.meta.url));
const PERSONAL = ['Maren', 'Oduya', 'm.oduya', '900318', 'Fennwick', 'secret-of-mine'];
const payload = {
  name: 'Maren Oduya',
  email: 'm.oduya@fennwick.example',
  phone: '07700 900318',
  company: 'Fennwick Academy',
  message: 'secret-of-mine',
};

let web: TestServer;
let workspace: TestWorkspace;
let child: ChildProcess;
let base: string;
let said = '';

/** The built server, logging all that it can. */
beforeAll(async () => {
  const databaseUrl = await newDatabase();
  web = await TestServer.start(databaseUrl, { role: 'web' });
  workspace = await TestWorkspace.make(web);
  await workspace.publish();
  const port = await new Promise<number>((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port: free } = probe.address() as { port: number };
      probe.close(() => resolve(free));
    });
  });
  base = `http://127.0.0.1:${port}`;
  child = spawn(process.execPath, [join(main)], {
    env: { ...process.env, DATABASE_URL: databaseUrl, HAYCART_PORT: String(port), HAYCART_LOG: 'debug' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  for (const stream of [child.stdout!, child.stderr!]) stream.on('data', (chunk: Buffer) => (said += chunk.toString()));
  await until(
    () =>
      fetch(`${base}/readyz`).then(
        ({ ok }) => ok,
        () => false,
      ),
    Boolean,
  );
});
afterAll(async () => {
  child.kill('SIGKILL');
  await web.stop();
});

const post = (body: string, type = 'application/json') =>
  fetch(`${base}/in/${workspace.endpoint}`, { method: 'POST', body, headers: { 'content-type': type } });

test('security has lines of its own, with ids and nothing else of a person', async () => {
  const post = (path: string, body: unknown, headers: Record<string, string> = {}) =>
    fetch(`${base}/api/v1${path}`, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json', ...headers },
    });
  const email = `${workspace.key}@quillfern.example`;
  await post('/session', { email, password: 'a wrong password' });
  await post('/session', { email, password: 'a long password' }, { origin: 'https://elsewhere.example' });
  const signedIn = await post('/session', { email, password: 'a long password' });
  const cookie = { cookie: signedIn.headers.get('set-cookie')!.split(';')[0]! };
  const { id } = (await (
    await post('/people', { name: 'Maren Oduya', email: 'm.oduya@fennwick.example' }, cookie)
  ).json()) as { id: string };
  await fetch(`${base}/api/v1/people/maren-oduya`, {
    method: 'PATCH',
    body: '{"active":false}',
    headers: { 'content-type': 'application/json', ...cookie },
  });
  await fetch(`${base}/api/v1/session`, { headers: { authorization: `Bearer ${workspace.token}` } });
  await fetch(`${base}/api/v1/session`, { headers: { authorization: 'Bearer secret-of-mine' } });
  const lines = said
    .split('\n')
    .filter((line) => line.includes('"area":"security"'))
    .map((line) => JSON.parse(line) as { msg: string; person?: string; active?: boolean });
  for (const msg of [
    'A try to sign in was refused.',
    'A request from another site was refused.',
    'Somebody signed in.',
    'A token was used.',
    'An unknown or ended token was refused.',
  ])
    expect(lines).toContainEqual(expect.objectContaining({ msg }));
  expect(lines).toContainEqual(expect.objectContaining({ msg: 'A person was added.', person: id }));
  expect(lines).toContainEqual(expect.objectContaining({ msg: 'A person was changed.', person: id, active: false }));
  for (const word of [...PERSONAL, email]) expect(said).not.toContain(word);
});

test('logs are JSON, tell what failed, and hold nothing of what a visitor sent', async () => {
  const admin = new pg.Client({ connectionString: asOwner(web.databaseUrl) });
  await admin.connect();
  await admin.query(
    `create function no_maren() returns trigger language plpgsql as $$ begin raise exception 'no room for %', new.full_name using errcode = '22000'; end $$`,
  );
  await admin.query('create trigger no_maren before insert on contact for each row execute function no_maren()');
  try {
    const { submissionId } = (await (await post(JSON.stringify(payload))).json()) as { submissionId: string };
    await post(`{"name": "Maren Oduya", broken`);
    await post('name=Maren+Oduya', 'text/plain');
    await fetch(`${base}/f/f-${workspace.key}?utm_source=secret-of-mine`);
    await fetch(`${base}/api/v1/contacts?q=Oduya`, { headers: { authorization: 'Bearer secret-of-mine' } });
    // Its tries are not waited for here; each of them is logged.
    await until(
      async () => {
        await admin.query('update submission set due_at = now() where tries > 0');
        return workspace.get<SubmissionDetail>(`/submissions/${submissionId}`);
      },
      ({ runs }) => runs[0]?.outcome === 'failed',
    );
  } finally {
    await admin.query('drop function no_maren cascade');
    await admin.end();
  }
  const lines = said.split('\n').filter(Boolean);
  const failures = lines.filter((line) => line.includes('could not be written'));
  expect(failures.length).toBeGreaterThan(0);
  for (const line of lines) expect(JSON.parse(line)).toMatchObject({ level: expect.any(Number) });
  for (const word of PERSONAL) expect(said).not.toContain(word);
});
