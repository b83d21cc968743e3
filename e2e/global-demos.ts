import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';
import { addressOf, portOf, WORKERS } from './servers';

const root = join(import.meta.dirname, '..');
const dataOf = (worker: number) => join(root, `node_modules/.cache/haycart-e2e-${worker}`);

/** How long a demo may take to make its data and get ready, with as many others beside it. */
const LONGEST_START = 300_000;

/** Starts a demo for each worker, all at once and each as a newcomer starts it; what it returns stops them. */
export default async function startDemos(): Promise<() => Promise<void>> {
  const demos = Array.from({ length: WORKERS }, (_, worker) => startDemo(worker));
  const stop = async () => {
    for (const demo of demos) demo.kill('SIGINT');
    await Promise.all(demos.map((demo) => demo.exitCode ?? once(demo, 'exit')));
  };
  try {
    await Promise.all(demos.map((demo, worker) => ready(demo, `${addressOf(worker)}/readyz`)));
  } catch (error) {
    await stop();
    throw error;
  }
  return stop;
}

function startDemo(worker: number): ChildProcess {
  return spawn('sh', ['-c', './haycart reset --yes; exec ./haycart demo'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, HAYCART_PORT: String(portOf(worker)), HAYCART_DATA: dataOf(worker), HAYCART_LOG: 'warn' },
  });
}

async function ready(demo: ChildProcess, address: string): Promise<void> {
  const until = Date.now() + LONGEST_START;
  while (Date.now() < until) {
    if (demo.exitCode !== null) throw new Error(`A demo ended with ${demo.exitCode} before it was ready.`);
    if (
      await fetch(address).then(
        ({ ok }) => ok,
        () => false,
      )
    )
      return;
    await new Promise((go) => setTimeout(go, 500));
  }
  throw new Error(`${address} did not answer in time.`);
}
