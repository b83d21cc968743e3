import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { BODY_KINDS, Hostile, seeded, type HostileBody } from './support/hostile';
import { freePort, killProcesses, startProcess } from './support/server-process';
import { newDatabase, TestServer, TestWorkspace } from './support/test-server';

/** The longest that one request may hold up another, in milliseconds of the server's computing. */
const LONGEST_HOLD = 200;
const SEED = 20_261_128;
/** How many are sent at once; fewer than the posts with files that are taken from one address. */
const AT_ONCE = 4;

let maker: TestServer;
let workspace: TestWorkspace;
let base: string;
let serverId: number;

beforeAll(async () => {
  maker = await TestServer.start(await newDatabase(), { role: 'web', background: false });
  workspace = await TestWorkspace.make(maker);
  await workspace.publish();
  await workspace.call('PATCH', `/intakes/${workspace.endpoint}`, { perMinute: null });
  await workspace.call('PATCH', `/intakes/${workspace.form}`, { perMinute: null });
  const port = await freePort();
  serverId = (await startProcess(maker.databaseUrl, port)).pid!;
  base = `http://127.0.0.1:${port}`;
});
afterAll(async () => {
  killProcesses();
  await maker.stop();
});

interface Sent {
  method: string;
  path: string;
  headers?: Record<string, string>;
  hostile: HostileBody | null;
}

/** Returns the status of the answer, 0 when none came within ten seconds. */
async function send({ method, path, headers = {}, hostile }: Sent): Promise<number> {
  const type: Record<string, string> = hostile?.type ? { 'content-type': hostile.type } : {};
  const response = await fetch(`${base}${path}`, {
    method,
    headers: { ...headers, ...type },
    signal: AbortSignal.timeout(10_000),
    redirect: 'manual',
    ...(hostile ? { body: hostile.body as BodyInit } : {}),
  }).catch((cause: Error) => {
    if (cause.name === 'TimeoutError') return null;
    throw cause;
  });
  await response?.arrayBuffer();
  return response?.status ?? 0;
}

/** The computing time that the server's own thread has used so far, in milliseconds (proc(5); a tick is ten). */
function computed(): number {
  const stat = readFileSync(`/proc/${serverId}/task/${serverId}/stat`, 'utf8');
  const [user, system] = stat.split(') ')[1]!.split(' ').slice(11, 13);
  return (Number(user) + Number(system)) * 10;
}

/**
 * The longest that the server left somebody else waiting while a request was under way: no longer than its thread computed
 * in just that time, since on a busy machine one waits for others too.
 */
async function holdWhile(work: Promise<unknown>): Promise<number> {
  let going = true;
  let longest = 0;
  const ended = work.finally(() => (going = false));
  while (going) {
    const [begin, before] = [performance.now(), computed()];
    await (await fetch(`${base}/healthz`)).arrayBuffer();
    longest = Math.max(longest, Math.min(performance.now() - begin, computed() - before));
  }
  await ended;
  return longest;
}

/** A failure of the server, or no answer at all. */
const isWrong = (status: number) => status >= 500 || status === 0;

/** Sends all at once, and tells what is wrong with how the server bore it; each alone where they held others up together. */
async function troubles(all: readonly Sent[]): Promise<string[]> {
  const statuses: number[] = [];
  const hold = await holdWhile(Promise.all(all.map(async (sent, at) => (statuses[at] = await send(sent)))));
  if (hold <= LONGEST_HOLD && !statuses.some(isWrong)) return [];
  const found: string[] = [];
  for (const sent of all) found.push(...(await trouble(sent)));
  return found;
}

/** Sends it, and tells what is wrong with how the server bore it. What held others up by chance does not do so again. */
async function trouble(sent: Sent): Promise<string[]> {
  let status = 0;
  const attempt = () => holdWhile(send(sent).then((answered) => (status = answered)));
  let hold = await attempt();
  for (let turn = 0; turn < 3 && hold > LONGEST_HOLD; turn += 1) hold = Math.min(hold, await attempt());
  const what = `${sent.method} ${sent.path} ${sent.hostile?.type.slice(0, 60)} ${String(sent.hostile?.body).slice(0, 80)}`;
  return [
    ...(isWrong(status) ? [`${status}: ${what}`] : []),
    ...(hold > LONGEST_HOLD ? [`held others ${Math.round(hold)} ms: ${what}`] : []),
  ];
}

test('a hundred hostile bodies of every content type at every public address give no 5xx and hold nobody up', async () => {
  const hostile = new Hostile(seeded(SEED));
  const addresses = [
    `/in/${workspace.endpoint}`,
    `/in/${workspace.form}`,
    '/in/nothing',
    '/api/v1/session',
    '/api/v1/session/first',
    '/api/v1/session/demo',
    '/forms/seen',
    `/f/f-${workspace.key}`,
  ];
  const found: string[] = [];
  for (const path of addresses)
    for (const kind of BODY_KINDS)
      for (let n = 0; n < 100; n += AT_ONCE) {
        const some = Array.from({ length: AT_ONCE }, () => ({ method: 'POST', path, hostile: hostile.body(kind) }));
        found.push(...(await troubles(some)));
      }
  for (let n = 0; n < 100; n += 1) {
    const query = hostile.parameter();
    const path = hostile.pick([
      `/f/f-${workspace.key}?lang=${query}`,
      `/f/${query}`,
      `/entry/${query}`,
      `/embed/${query}.js`,
    ]);
    found.push(...(await trouble({ method: 'GET', path, hostile: null })));
  }
  expect(found).toEqual([]);
}, 600_000);

test('a thousand hostile requests at the API give no 5xx and hold nobody up', async () => {
  const hostile = new Hostile(seeded(SEED + 1));
  const { paths } = (await (
    await fetch(`${base}/api/openapi.json`, { headers: { authorization: `Bearer ${workspace.token}` } })
  ).json()) as {
    paths: Record<string, Record<string, unknown>>;
  };
  const calls = Object.entries(paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => ({ path, method })),
  );
  expect(calls.length).toBeGreaterThan(150);
  const found: string[] = [];
  for (let n = 0; n < 1_000; n += 1) {
    const { path, method } = calls[n % calls.length]!;
    if (path.endsWith('/events')) continue;
    const filled = path.replace(/\{\w+\}/g, () =>
      hostile.pick(['nothing', workspace.id, 'contact', 'new-builds', hostile.parameter().slice(0, 300)]),
    );
    const query =
      hostile.random() < 0.3
        ? `?${hostile
            .urlencoded()
            .slice(0, 3_000)
            .replaceAll(/[^\x21-\x7e]/g, 'x')}`
        : '';
    const sent = {
      method: method.toUpperCase(),
      path: `${filled}${query}`,
      headers: { authorization: `Bearer ${workspace.token}` },
      hostile: method === 'get' ? null : hostile.body(),
    };
    found.push(...(await trouble(sent)));
  }
  expect(found).toEqual([]);
}, 600_000);
