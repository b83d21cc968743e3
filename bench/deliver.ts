import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createInterface } from 'node:readline';
import { LIMITS } from '@haycart/core';
import pg from 'pg';
import { fill, route } from './enquiries';
import { freshDatabase, prepare, report, startServer } from './support';

const MESSAGES = 6_000;
const CHANNELS = 8;
const GOALS = { ratio: 0.7, aSecond: 500 };
const TEXT = 'Ada Weir leaves CP-0412: It costs too much.';

/** A chat that takes everything, and one that never answers, each in a process of its own. */
async function receiver(behaviour: object = {}): Promise<{ address: string; stop: () => void }> {
  const child = spawn(process.execPath, ['apps/stand-ins/src/receive.mjs'], {
    env: { ...process.env, HAYCART_RECEIVER_PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const [line] = (await once(createInterface(child.stdout), 'line')) as [string];
  const address = line.replace('Listening on ', '');
  await fetch(`${address}/behaviour`, { method: 'PUT', body: JSON.stringify(behaviour) });
  return { address, stop: () => child.kill() };
}

/** Messages a second by the real server, to some channels; `dead` of those wait at a chat that never answers. */
async function ours(live: string, deadAt: string | null): Promise<number> {
  const databaseUrl = await freshDatabase('bench_deliver');
  const { services, ...prepared } = await prepare(databaseUrl, route);
  await fill({ services, ...prepared }, 1);
  await services.router.drain();
  await services.database.inWorkspace(prepared.workspaceId, async (tx) => {
    for (let n = 0; n < CHANNELS; n += 1) {
      const address = `${n === 0 && deadAt ? deadAt : live}/chat/${n}`;
      await services.channels.add(tx, { key: `c${n}`, name: `c${n}`, by: 'chat', address });
    }
  });
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  await client.query(
    `insert into outbox (workspace_id, id, submission_id, run_id, attempt_id, route_id, kind, target, key, body)
     select workspace_id, gen_random_uuid(), submission_id, id, attempt_id, route_id, 'chat', 'c' || n % $2, 'k' || n, json_build_object('channel', 'c' || n % $2, 'text', $3::text)
     from run, generate_series(1, $1::int) n`,
    [MESSAGES, CHANNELS, TEXT],
  );
  await client.query('analyze');
  await services.close();
  const expected = deadAt ? MESSAGES - MESSAGES / CHANNELS : MESSAGES;
  const server = await startServer(databaseUrl, 'route', 4694);
  for (;;) {
    const { rows } = await client.query<{ n: number; seconds: number }>(
      `select count(*)::int as n, extract(epoch from max(ended_at) - min(ended_at))::float as seconds from outbox where state = 'done'`,
    );
    if (rows[0]!.n === expected) {
      server.kill();
      await client.end();
      return expected / rows[0]!.seconds;
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

/** The same posts by a plain client, as many at once. */
async function plainly(live: string): Promise<number> {
  let next = 0;
  const start = process.hrtime.bigint();
  const client = async () => {
    while (next < MESSAGES) {
      const n = next++;
      const answer = await fetch(`${live}/chat/${n % CHANNELS}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'idempotency-key': `p${n}` },
        body: JSON.stringify({ text: TEXT }),
      });
      await answer.arrayBuffer();
    }
  };
  await Promise.all(Array.from({ length: LIMITS.outgoingAtOnce.most }, client));
  return MESSAGES / (Number(process.hrtime.bigint() - start) / 1e9);
}

process.env.HAYCART_PRIVATE_TARGETS = '127.0.0.0/8';
const live = await receiver();
const dead = await receiver({ delayMs: 3_600_000 });
const before = await plainly(live.address);
const real = await ours(live.address, null);
const withDead = await ours(live.address, dead.address);
const plain = (before + (await plainly(live.address))) / 2;
live.stop();
dead.stop();
report({
  bench: 'deliver',
  ratio: real / plain,
  goal: GOALS.ratio,
  met: real / plain >= GOALS.ratio && real >= GOALS.aSecond,
  figures: {
    'messages a second': real,
    'plain client a second, as many at once': plain,
    'to the plain client (goal 0.7)': real / plain,
    'goal: messages a second': GOALS.aSecond,
    'messages a second while one of eight receivers never answers': withDead,
    'that to all answering': withDead / real,
  },
});
process.exit(0);
