import { spawn, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:net';
import { fileURLToPath } from 'node:url';
import { until } from './test-server';

/** The built server. */
export const MAIN = fileURLToPath(new URL('../../dist/main.js', import.meta.url));

const started: ChildProcess[] = [];

/** The built server as a process of its own, that can be killed. */
export async function startProcess(
  databaseUrl: string,
  port: number,
  env: Record<string, string> = {},
): Promise<ChildProcess> {
  const child = spawn(process.execPath, [MAIN], {
    env: { ...process.env, DATABASE_URL: databaseUrl, HAYCART_PORT: String(port), HAYCART_LOG: 'silent', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  started.push(child);
  await until(
    () =>
      fetch(`http://127.0.0.1:${port}/readyz`).then(
        ({ ok }) => ok,
        () => false,
      ),
    Boolean,
  );
  return child;
}

/** A port that nobody listens on. */
export function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}

/** Kills whatever was started. */
export function killProcesses(): void {
  for (const one of started.splice(0)) one.kill('SIGKILL');
}
