import pg from 'pg';
import { fill, PEOPLE, route } from './enquiries';
import { routePlainly } from './plain/route';
import { freshDatabase, prepare, report, startServer } from './support';

const WAITING = 20_000;
/** The plain script gets fewer, enough to settle: it does the same for each, however many there are. */
const PLAIN = 4_000;
const GOALS = { one: 6, eight: 3 };

/** Submissions a second of the real server, measured from the first run's start to the last run's end. */
async function ours(): Promise<number> {
  const databaseUrl = await freshDatabase('bench_route');
  const prepared = await prepare(databaseUrl, route);
  await fill(prepared, WAITING);
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  await client.query('analyze');
  const server = await startServer(databaseUrl, 'route', 4693);
  for (;;) {
    const { rows } = await client.query<{ n: number; seconds: number }>(
      'select count(*)::int as n, extract(epoch from max(finished_at) - min(started_at))::float as seconds from run',
    );
    if (rows[0]!.n === WAITING) {
      const { rows: checks } = await client.query<{ contacts: number; deals: number; touches: number }>(
        'select (select count(*)::int from contact) as contacts, (select count(*)::int from deal) as deals, (select count(*)::int from touch) as touches',
      );
      if (checks[0]!.contacts !== PEOPLE || checks[0]!.deals !== PEOPLE || checks[0]!.touches !== 3 * WAITING)
        throw new Error(`Routed wrongly: ${JSON.stringify(checks[0])}`);
      server.kill();
      await client.end();
      await prepared.services.close();
      return WAITING / rows[0]!.seconds;
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

async function plainly(workers: number): Promise<number> {
  const databaseUrl = await freshDatabase('bench_plain');
  const prepared = await prepare(databaseUrl, route);
  await fill(prepared, PLAIN);
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  await client.query('analyze');
  const { rows } = await client.query<{ id: string }>('select id from route');
  await client.end();
  const start = process.hrtime.bigint();
  const routed = await routePlainly(databaseUrl, prepared.workspaceId, rows[0]!.id, workers);
  const seconds = Number(process.hrtime.bigint() - start) / 1e9;
  await prepared.services.close();
  if (routed !== PLAIN) throw new Error(`The plain script routed ${routed} of ${PLAIN}.`);
  return routed / seconds;
}

const one = await plainly(1);
const eight = await plainly(8);
const real = await ours();
const again = await plainly(1);
const plainOne = (one + again) / 2;
report({
  bench: 'route',
  ratio: real / plainOne,
  goal: GOALS.one,
  met: real / plainOne >= GOALS.one && real / eight >= GOALS.eight,
  figures: {
    'routed a second, one server process': real,
    'plain script a second, 1 worker': plainOne,
    'plain script a second, 8 workers': eight,
    'to 1 plain worker (goal 6)': real / plainOne,
    'to 8 plain workers (goal 3)': real / eight,
  },
});
