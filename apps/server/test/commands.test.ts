import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, test } from '@jest/globals';
import { freePort } from './support/server-process';
import { asOwner, newDatabase, until } from './support/test-server';

const root = fileURLToPath(new URL('../../../', import.meta.url));

/** Runs the one command with a data folder of its own. */
function haycart(words: string[], env: Record<string, string> = {}, input = '') {
  const data = mkdtempSync(join(tmpdir(), 'haycart-command-'));
  const { status, stdout, stderr } = spawnSync(join(root, 'haycart'), words, {
    env: { ...process.env, HAYCART_DATA: data, ...env },
    encoding: 'utf8',
    input,
  });
  return { status, said: stdout + stderr };
}

describe('the command', () => {
  test('tells what it can do, and that a word was wrong', () => {
    const { status, said } = haycart(['dance']);
    expect(status).toBe(2);
    for (const word of ['demo', 'start', 'test', 'bench', 'token', 'reset'])
      expect(said).toContain(`./haycart ${word}`);
    expect(haycart(['help']).status).toBe(0);
  });

  test.each([
    [['demo'], { HAYCART_PORT: 'http' }, 'HAYCART_PORT is “http”'],
    [['start'], { HAYCART_PORT: '70000' }, 'HAYCART_PORT is “70000”'],
    [
      ['bench', 'swim'],
      {},
      'bench takes accept, route, rehearse, lists, form, match, scan, quality, import, read, grow, deliver, follow, decide or report, not “swim”',
    ],
    [['test', 'swim'], {}, 'test takes lint, unit, server or e2e, not “swim”'],
  ])('%j with %j says what is wrong before it does anything', (words, env, said) => {
    const answer = haycart(words, env as Record<string, string>);
    expect([answer.status, answer.said]).toEqual([1, expect.stringContaining(said)]);
  });

  test('does not start on a port that is taken', async () => {
    const taken = createServer();
    const port = await new Promise<number>((resolve) => {
      taken.listen(0, '127.0.0.1', () => resolve((taken.address() as { port: number }).port));
    });
    expect(haycart(['demo'], { HAYCART_PORT: String(port) })).toMatchObject({
      status: 1,
      said: expect.stringContaining(`port ${port} is taken`),
    });
    taken.close();
  });

  test('resets only what it was told to, and nothing while it runs', () => {
    const data = mkdtempSync(join(tmpdir(), 'haycart-reset-'));
    mkdirSync(join(data, 'database'));
    writeFileSync(join(data, 'mine.txt'), 'kept');
    expect(haycart(['reset'], { HAYCART_DATA: data }, 'n\n')).toMatchObject({
      status: 1,
      said: expect.stringContaining('Nothing was deleted.'),
    });
    expect(existsSync(join(data, 'database'))).toBe(true);
    writeFileSync(join(data, 'pid'), String(process.pid));
    expect(haycart(['reset', '--yes'], { HAYCART_DATA: data }).said).toContain('is running. Stop it first.');
    writeFileSync(join(data, 'pid'), '');
    expect(haycart(['reset', '--yes'], { HAYCART_DATA: data }).status).toBe(0);
    expect([existsSync(join(data, 'database')), existsSync(join(data, 'mine.txt'))]).toEqual([false, true]);
  });

  test('ends at SIGINT in the background too; its set-up code is for its owner alone, and goes after use', async () => {
    const [data, port] = [mkdtempSync(join(tmpdir(), 'haycart-start-')), await freePort()];
    const code = join(data, 'setup-code');
    // A shell has what it puts into the background ignore SIGINT.
    const shell = spawn('sh', ['-c', './haycart start >"$HAYCART_DATA/said" 2>&1 & echo $!; wait $!'], {
      cwd: root,
      env: {
        ...process.env,
        HAYCART_DATA: data,
        HAYCART_PORT: String(port),
        DATABASE_URL: asOwner(await newDatabase()),
      },
      stdio: ['ignore', 'pipe', 'inherit'],
      detached: true,
    });
    const ended = once(shell, 'exit');
    try {
      const [pid] = (await once(shell.stdout, 'data')) as [Buffer];
      await until(
        async () => existsSync(join(data, 'said')) && readFileSync(join(data, 'said'), 'utf8'),
        (said) => String(said).includes('Hay Cart is ready'),
      );
      expect(statSync(code).mode & 0o777).toBe(0o600);
      const first = await fetch(`http://127.0.0.1:${port}/api/v1/session/first`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          code: readFileSync(code, 'utf8'),
          workspace: 'Weir',
          country: 'GB',
          currency: 'GBP',
          name: 'Ada',
          email: 'ada@weir.example',
          password: 'another long one 7',
        }),
      });
      expect([first.status, existsSync(code)]).toEqual([204, false]);
      process.kill(Number(pid.toString()), 'SIGINT');
      expect(await ended).toEqual([130, null]);
      expect(existsSync(join(data, 'pid'))).toBe(false);
    } finally {
      // Whatever failed, nothing of it goes on and keeps the runner from ending.
      if (shell.exitCode === null) process.kill(-shell.pid!, 'SIGTERM');
    }
  });
});
