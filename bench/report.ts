import pg from 'pg';
import { CREDIT_MODELS } from '@haycart/core';
import { freshDatabase, median, prepare, report, startServer } from './support';

/** Of the time that bare SQL takes for the same sums. */
const GOAL = 2;
const LONGEST_MS = 1_000;
const DEALS = 200_000;
const TOUCHES = 1_000_000;
const SOURCES = 1_000;
const ROUNDS = 5;
const PORT = 4697;

/** Deals of a contact each, a third of them won, and visits that touched the contacts: some one, most several. */
const FILL = [
  `insert into touch_source (workspace_id, channel, source, medium, campaign, page)
   select $1, (array['e-mail', 'search', 'paid', 'referral', 'direct'])[1 + n % 5], 'source ' || n / 10, null, 'campaign ' || n % 97, null
   from generate_series(1, ${SOURCES}) n`,
  `insert into contact (workspace_id, id, number, full_name, created_at, updated_at)
   select $1, md5('c' || n)::uuid, n, 'Person ' || n, now() - random() * interval '2 years', now() from generate_series(1, ${DEALS}) n`,
  `insert into deal (workspace_id, id, number, name, pipeline, stage, status, stage_since, value_amount, value_currency, created_at, updated_at, closed_at)
   select $1, md5('d' || n)::uuid, n, 'Deal ' || n, 'new-builds', case when n % 3 = 0 then 'won' else 'enquiry' end, case when n % 3 = 0 then 'won' else 'open' end,
     at, (random() * 1e7)::bigint, 'GBP', at, at, case when n % 3 = 0 then at + random() * interval '60 days' end
   from (select n, now() - random() * interval '1 year' as at from generate_series(1, ${DEALS}) n) d`,
  `insert into record_link (workspace_id, from_kind, from_id, to_kind, to_id, at)
   select $1, 'deal', md5('d' || n)::uuid, 'contact', md5('c' || n)::uuid, now() from generate_series(1, ${DEALS}) n`,
  `insert into visit (workspace_id, id, at, source_id)
   select $1, md5('v' || n)::uuid, now() - random() * interval '2 years', s.ids[1 + (power(random(), 2) * ${SOURCES - 1})::int]
   from generate_series(1, ${TOUCHES}) n, (select array_agg(id) as ids from touch_source) s`,
  `insert into touch (workspace_id, id, record_kind, record_id, attempt_id, visit_id)
   select $1, md5('t' || n)::uuid, 'contact', md5('c' || 1 + (power(random(), 1.5) * ${DEALS - 1})::int)::uuid, md5('t' || n)::uuid, md5('v' || n)::uuid
   from generate_series(1, ${TOUCHES}) n`,
  `insert into journey_due (workspace_id, record_id) select $1, md5(k || n)::uuid from generate_series(1, ${DEALS}) n, (values ('c'), ('d')) of (k)`,
  'analyze',
];

/** The same sums, by hand: submissions, contacts, and deals with equal shares, by source; and by month. */
const BARE = [
  `select source_id, count(*) from visit where workspace_id = $1 group by 1`,
  `select source_id, count(*) from journey_step where workspace_id = $1 and record_kind = 'contact' group by 1`,
  `select source_id, count(*), sum(amount::float8 / of), sum(amount::float8 / of) filter (where won_at is not null)
   from journey_step where workspace_id = $1 and record_kind = 'deal' and 1 between basis and to_basis group by 1`,
  `select source_id, to_char(won_at, 'YYYY-MM'), sum(amount::float8 / of) from journey_step
   where workspace_id = $1 and record_kind = 'deal' and 1 between basis and to_basis and won_at >= now() - interval '1 year' group by 1, 2`,
];

const databaseUrl = await freshDatabase('bench_report');
const { services, workspaceId } = await prepare(databaseUrl);
const token = await services.tokens.makeFor('bench', 'bench');
await services.close();
const client = new pg.Client({ connectionString: databaseUrl });
await client.connect();
await client.query('set session_replication_role = replica');
for (const statement of FILL) await client.query(statement, statement.includes('$1') ? [workspaceId] : []);

const begun = performance.now();
const server = await startServer(databaseUrl, 'all', PORT);
for (;;) {
  const { rows } = await client.query<{ due: boolean }>('select exists (select 1 from journey_due) as due');
  if (!rows[0]!.due) break;
  await new Promise((resolve) => setTimeout(resolve, 500));
}
const followed = (performance.now() - begun) / 1_000;
await client.query('vacuum analyze');
const { rows: kept } = await client.query<{ steps: number }>(
  `select count(*)::int as steps from journey_step where 1 between basis and to_basis and record_kind = 'deal'`,
);

async function askedOnce(query: string): Promise<number> {
  const start = performance.now();
  const response = await fetch(`http://127.0.0.1:${PORT}/api/v1/reports/sources?from=2020-01-01&${query}`, {
    headers: { authorization: `Bearer ${token}` },
  });
  await response.arrayBuffer();
  if (response.status !== 200) throw new Error(`The report was answered with ${response.status}.`);
  return performance.now() - start;
}
async function asked(query: string): Promise<number> {
  const times = [];
  for (let round = 0; round < ROUNDS; round += 1) times.push(await askedOnce(query));
  return median(times);
}
async function bare(): Promise<number> {
  const times = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const start = performance.now();
    for (const statement of BARE) await client.query(statement, [workspaceId]);
    times.push(performance.now() - start);
  }
  return median(times);
}

const yardstick = await bare();
const figures: Record<string, number> = {};
const first = await askedOnce('credit=position');
for (const { key } of CREDIT_MODELS) {
  figures[`${key}, by campaign, ms`] = await asked(`credit=${key}&by=channel,source,campaign`);
  figures[`${key}, by channel, 90 days back, ms`] = await asked(`credit=${key}&window=90`);
}
server.kill();
await client.end();
const slowest = Math.max(...Object.values(figures));
const ratio = figures['equal, by campaign, ms']! / yardstick;
report({
  bench: 'report',
  ratio,
  goal: GOAL,
  met: ratio <= GOAL && slowest <= LONGEST_MS,
  figures: {
    'touches of deals': kept[0]!.steps,
    'making all journeys, s': followed,
    'bare SQL of the same sums, ms': yardstick,
    'first report after a start, by channel, ms': first,
    ...figures,
  },
});
