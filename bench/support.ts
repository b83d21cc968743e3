import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { RouteDefinition } from '@haycart/core';
import { openServices, type Services } from '@haycart/server/seeding';
import pg from 'pg';

/** Where the repository begins: benchmarks are started there. */
export const ROOT = process.cwd();
export const MIGRATIONS = join(ROOT, 'apps/server/drizzle');

/** What a benchmark found, beside its yardstick of the same run. */
export interface Result {
  bench: string;
  ratio: number;
  goal: number;
  met: boolean;
  figures: Record<string, number>;
}

/** A database of its own for one benchmark, on the cluster that the command started, with its default durability. */
export async function freshDatabase(name: string): Promise<string> {
  const cluster = process.env.HAYCART_BENCH_CLUSTER!;
  const admin = new pg.Client({ connectionString: `${cluster}/postgres` });
  await admin.connect();
  await admin.query(`drop database if exists ${name} with (force)`);
  await admin.query(`create database ${name}`);
  await admin.end();
  return `${cluster}/${name}`;
}

/** The services on a prepared database, and what was made there. */
export interface Prepared {
  services: Services;
  workspaceId: string;
  intakeId: string;
  /** The endpoint's key. */
  key: string;
}

/** A workspace with one endpoint that takes any number of posts, and with a route where one is given. */
export async function prepare(databaseUrl: string, route?: (intake: string) => RouteDefinition): Promise<Prepared> {
  const services = await openServices({ DATABASE_URL: databaseUrl }, MIGRATIONS);
  const pipelines = [
    {
      key: 'new-builds',
      name: 'New builds',
      record: 'deal' as const,
      stages: [
        { key: 'enquiry', name: 'Enquiry', state: 'open' as const },
        { key: 'won', name: 'Won', state: 'won' as const },
      ],
    },
  ];
  const made = await services.workspaces.add(
    { key: 'bench', name: 'Bench', defaultCountry: 'GB', defaultCurrency: 'GBP', pipelines },
    async (tx) => {
      const { id, key } = await services.intakes.add(tx, { kind: 'endpoint', name: 'Bench' });
      await services.intakes.change(tx, id, { perMinute: null });
      if (route) {
        const added = await services.routes.add(tx, route(key));
        await services.routes.publish(tx, added.id, 'bench', null);
      }
      return { workspaceId: tx.workspaceId, intakeId: id, key };
    },
  );
  return { services, ...made };
}

/** The built server as a process of its own. */
export async function startServer(
  databaseUrl: string,
  role: 'all' | 'accept' | 'route' | 'web',
  port: number,
  { jobs = true }: { jobs?: boolean } = {},
): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['apps/server/dist/main.js'], {
    cwd: ROOT,
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      HAYCART_ROLE: role,
      HAYCART_PORT: String(port),
      HAYCART_LOG: 'error',
      HAYCART_JOBS: jobs ? 'on' : 'off',
    },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  await answers(`http://127.0.0.1:${port}/readyz`);
  return child;
}

/** Waits until an address answers. */
export async function answers(url: string): Promise<void> {
  while (
    !(await fetch(url).then(
      ({ ok }) => ok,
      () => false,
    ))
  )
    await new Promise((resolve) => setTimeout(resolve, 20));
}

/** Inserts a second by pgbench, each durable, of the same bytes. */
export function pgbench(databaseUrl: string, script: string, clients: number, seconds: number): number {
  const text = execFileSync(
    'pgbench',
    ['-n', '-M', 'prepared', '-c', String(clients), '-j', '2', '-T', String(seconds), '-f', script, databaseUrl],
    { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] },
  );
  return Number(/tps = ([\d.]+)/.exec(text)![1]);
}

/** What wrk measured: requests a second and latencies in milliseconds. */
export function wrk(
  url: string,
  script: string,
  clients: number,
  seconds: number,
): { rate: number; median: number; p99: number; refused: number } {
  // One thread is enough to load the server, and leaves it more of two cores.
  const text = execFileSync('wrk', ['-t1', `-c${clients}`, `-d${seconds}s`, '--latency', '-s', script, url], {
    encoding: 'utf8',
  });
  const time = (mark: string) => {
    const [, value, unit] = new RegExp(`${mark}\\s+([\\d.]+)(us|ms|s)`).exec(text)!;
    return Number(value) * { us: 0.001, ms: 1, s: 1_000 }[unit as 'us' | 'ms' | 's'];
  };
  return {
    rate: Number(/Requests\/sec:\s+([\d.]+)/.exec(text)![1]),
    median: time('50%'),
    p99: time('99%'),
    refused: Number(/Non-2xx or 3xx responses: (\d+)/.exec(text)?.[1] ?? 0),
  };
}

/** Prints a result as a table and keeps it in `bench/results`. */
export function report({ bench, ratio, goal, met, figures }: Result): void {
  const width = Math.max(...Object.keys(figures).map((name) => name.length));
  for (const [name, value] of Object.entries(figures))
    console.log(`${name.padEnd(width)}  ${value.toLocaleString('en-GB', { maximumFractionDigits: 2 }).padStart(12)}`);
  console.log(`${bench}: ratio ${ratio.toFixed(2)}, goal ${goal}, ${met ? 'met' : 'not met'}`);
  mkdirSync(join(ROOT, 'bench/results'), { recursive: true });
  writeFileSync(
    join(ROOT, `bench/results/${bench}.json`),
    `${JSON.stringify({ bench, at: new Date().toISOString(), ratio, goal, met, figures }, null, 2)}\n`,
  );
}

export const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
