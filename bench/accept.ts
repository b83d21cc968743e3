import { spawn } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { answers, freshDatabase, median, pgbench, prepare, report, ROOT, startServer, wrk } from './support';

const GOAL = 0.6;
const CLIENTS = 32;
/** Many short rounds, and the median of their ratios: what disturbs a shared machine comes and goes within seconds. */
const SECONDS = 3;
const ROUNDS = 9;
const [PORT, PLAIN_PORT] = [4691, 4692];

/** 600 bytes of JSON, as a form sends them. */
const start =
  '{"first_name":"Maren","last_name":"Oduya","email":"m.oduya@fennwick.example","organisation":"Fennwick Academy","message":"';
const BODY = `${start}${'x'.repeat(598 - start.length)}"}`;

/** Accepting, durable before 202, beside pgbench's single-row inserts of the same bytes; one after the other, in rounds. */
const databaseUrl = await freshDatabase('bench_accept');
const { services, key } = await prepare(databaseUrl);
await services.close();
const client = new pg.Client({ connectionString: databaseUrl });
await client.connect();
await client.query(
  'create table yardstick (id uuid primary key default gen_random_uuid(), at timestamptz not null default now(), body text not null)',
);
const folder = mkdtempSync(join(tmpdir(), 'haycart-bench-'));
const insert = join(folder, 'insert.sql');
writeFileSync(insert, `insert into yardstick (body) values ('${BODY}');\n`);
const post = join(folder, 'post.lua');
writeFileSync(post, `wrk.method = "POST"\nwrk.headers["Content-Type"] = "application/json"\nwrk.body = [[${BODY}]]\n`);

const server = await startServer(databaseUrl, 'accept', PORT);
const plain = spawn(process.execPath, ['bench/dist/handler.js'], {
  cwd: ROOT,
  env: { ...process.env, DATABASE_URL: databaseUrl, PORT: String(PLAIN_PORT) },
  stdio: ['ignore', 'ignore', 'inherit'],
});
await answers(`http://127.0.0.1:${PORT}/healthz`);
const address = `http://127.0.0.1:${PORT}/in/${key}`;
const plainAddress = `http://127.0.0.1:${PLAIN_PORT}/`;
try {
  wrk(address, post, CLIENTS, 4);
  wrk(plainAddress, post, CLIENTS, 4);
  const rounds = Array.from({ length: ROUNDS }, () => ({
    pgbench: pgbench(databaseUrl, insert, CLIENTS, SECONDS),
    many: wrk(address, post, CLIENTS, SECONDS),
    plainMany: wrk(plainAddress, post, CLIENTS, SECONDS),
    one: wrk(address, post, 1, SECONDS),
    plainOne: wrk(plainAddress, post, 1, SECONDS).rate,
  }));
  const { rows } = await client.query<{ n: number }>('select count(*)::int as n from submission');
  const of = (pick: (round: (typeof rounds)[number]) => number) => median(rounds.map(pick));
  const ratio = of(({ many, pgbench: yardstick }) => many.rate / yardstick);
  const oneRatio = of(({ one, plainOne }) => one.rate / plainOne);
  const tail = of(({ many }) => many.p99 / many.median);
  report({
    bench: 'accept',
    ratio,
    goal: GOAL,
    met: ratio >= GOAL && oneRatio >= 1 && tail < 5 && rounds.every(({ many }) => many.refused === 0),
    figures: {
      'accepted a second, 32 clients': of(({ many }) => many.rate),
      'pgbench inserts a second, 32 clients': of(({ pgbench: yardstick }) => yardstick),
      'plain handler a second, 32 clients': of(({ plainMany }) => plainMany.rate),
      'plain handler to pgbench': of(({ plainMany, pgbench: yardstick }) => plainMany.rate / yardstick),
      'median ms, 32 clients': of(({ many }) => many.median),
      'p99 ms, 32 clients': of(({ many }) => many.p99),
      'p99 to median (goal under 5)': tail,
      'p99 to median, plain handler': of(({ plainMany }) => plainMany.p99 / plainMany.median),
      'accepted a second, 1 client': of(({ one }) => one.rate),
      'plain handler a second, 1 client': of(({ plainOne }) => plainOne),
      'to plain handler, 1 client (goal 1)': oneRatio,
      refused: rounds.reduce((sum, { many, one }) => sum + many.refused + one.refused, 0),
      'submissions kept in all': rows[0]!.n,
    },
  });
} finally {
  server.kill();
  plain.kill();
  await client.end();
}
