import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';

/** What a stand-in received. */
export interface Received {
  number: number;
  path: string;
  headers: Record<string, string>;
  body: string;
}

/** A stand-in that is posted to, in a process of its own. */
export interface Receiver {
  address: string;
  received(): Promise<Received[]>;
  forget(): Promise<unknown>;
  /** Has it answer otherwise: `{status, delayMs, times, loseAnswer}`. */
  behave(behaviour: object): Promise<unknown>;
  stop(): void;
}

export async function startReceiver(): Promise<Receiver> {
  const program = fileURLToPath(new URL('../../../stand-ins/src/receive.mjs', import.meta.url));
  const child = spawn(process.execPath, [program], {
    env: { ...process.env, HAYCART_RECEIVER_PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const [line] = (await once(createInterface(child.stdout), 'line')) as [string];
  const address = line.replace('Listening on ', '');
  const ask = (method: string, path: string, body?: object) =>
    fetch(`${address}${path}`, { method, ...(body ? { body: JSON.stringify(body) } : {}) });
  return {
    address,
    received: async () => (await (await ask('GET', '/received')).json()) as Received[],
    forget: () => ask('DELETE', '/received'),
    behave: (behaviour) => ask('PUT', '/behaviour', behaviour),
    stop: () => void child.kill(),
  };
}
