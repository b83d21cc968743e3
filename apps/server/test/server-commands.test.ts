import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { SessionShape } from '@haycart/api';
import { newDatabase, TestServer, TestWorkspace } from './support/test-server';

const file = (name: string) => fileURLToPath(new URL(`../dist/${name}.js`, import.meta.url));
const keyFile = join(mkdtempSync(join(tmpdir(), 'haycart-key-')), 'secret-key');

let server: TestServer;
let workspace: TestWorkspace;

beforeAll(async () => {
  server = await TestServer.start(await newDatabase(), { role: 'web', background: false, secretKeys: [] });
  workspace = await TestWorkspace.make(server);
});
afterAll(() => server.stop());

function run(name: string, ...words: string[]) {
  const env = {
    ...process.env,
    DATABASE_URL: server.databaseUrl,
    HAYCART_KEY_FILE: keyFile,
    HAYCART_PUBLIC_URL: 'https://crm.example',
  };
  return spawnSync(process.execPath, [file(name), ...words], { env, encoding: 'utf8' });
}

test('a token is all that is printed for scripts, and it works', async () => {
  const { stdout, stderr } = run('token', '--workspace', workspace.key);
  expect(stdout).toMatch(/^hc_[\w-]{43}\n$/);
  expect(stderr).toContain('ends in 24 hours');
  const answer = await fetch(`${server.base}/api/v1/session`, {
    headers: { authorization: `Bearer ${stdout.trim()}` },
  });
  expect(((await answer.json()) as SessionShape).workspace.key).toBe(workspace.key);
  const refused = run('token', '--workspace', 'nothing');
  expect([refused.status, refused.stdout]).toEqual([1, '']);
});

test('a link to set a password is printed, and works once', async () => {
  const { stdout } = run('reset-password', `${workspace.key}@quillfern.example`);
  const secret = /^https:\/\/crm\.example\/welcome\/(\S+)/.exec(stdout)![1];
  const use = () => server.postJson(`/api/v1/session/link/${secret}`, { password: 'another long one 7' });
  expect([(await use()).status, (await use()).status]).toEqual([204, 404]);
  expect(run('reset-password', 'nobody@weir.example').stderr).toContain('There is no active person');
});

test('a new key seals what was kept, and the old one is forgotten', async () => {
  await workspace.query(`update intake set secret = 'whsec_plain' where key = $1`, [workspace.endpoint]);
  const keys = () => readFileSync(keyFile, 'utf8').trim().split('\n');
  const kept = async () =>
    (await workspace.query<{ secret: string }>('select secret from intake where key = $1', [workspace.endpoint]))[0]!
      .secret;
  expect(run('rotate-key').stdout).toContain('1 secret sealed anew');
  const first = await kept();
  const before = keys();
  expect(run('rotate-key').stdout).toContain('1 secret sealed anew');
  expect(await kept()).not.toBe(first);
  expect(keys()[1]).toBe(before[0]);
  expect(run('rotate-key', '--forget').stdout).toContain('The old key is forgotten');
  expect(keys()).toHaveLength(1);
});
