import pg from 'pg';
import { v7 } from 'uuid';
import { freshDatabase, median, prepare, report, startServer } from './support';

const GOAL = 1.5;
const CONTACTS = 1_000_000;
const DEALS = 200_000;
const ROUNDS = 15;
const PORT = 4693;

/** What people ask lists for, each with the SQL that a hand would write for the same page. */
interface Case {
  name: string;
  path: string;
  table: 'contact' | 'deal';
  where: string;
  order: string;
}

const filter = (condition: object) => `filter=${encodeURIComponent(JSON.stringify(condition))}`;
const CASES: Case[] = [
  {
    name: 'contacts, first page',
    path: 'contacts?limit=50',
    table: 'contact',
    where: 'true',
    order: 'updated_at desc, id desc',
  },
  {
    name: 'contacts, by name',
    path: 'contacts?limit=50&sort=full_name',
    table: 'contact',
    where: 'full_name is not null',
    order: 'lower(full_name), id',
  },
  {
    name: 'contacts, one option of six',
    path: `contacts?limit=50&${filter({ of: { field: 'growing_for' }, test: 'is-any-of', value: ['moss'] })}`,
    table: 'contact',
    where: `custom @> '{"growing_for":"moss"}'`,
    order: 'updated_at desc, id desc',
  },
  {
    name: 'contacts, one option in ten thousand',
    path: `contacts?limit=50&${filter({ of: { field: 'growing_for' }, test: 'is-any-of', value: ['orchid'] })}`,
    table: 'contact',
    where: `custom @> '{"growing_for":"orchid"}'`,
    order: 'updated_at desc, id desc',
  },
  {
    name: 'contacts, a rare tag by name',
    path: `contacts?limit=50&sort=full_name&${filter({ of: { field: 'tags' }, test: 'is-any-of', value: ['press'] })}`,
    table: 'contact',
    where: `tags && '{press}' and full_name is not null`,
    order: 'lower(full_name), id',
  },
  {
    name: 'contacts, search',
    path: 'contacts?limit=50&q=person%2077777',
    table: 'contact',
    where: `lower((case when full_name is null then '' else full_name end) || ' ' || (case when email is null then '' else email end)) like '%person 77777%'`,
    order: 'updated_at desc, id desc',
  },
  {
    name: 'deals, first page',
    path: 'deals?limit=50',
    table: 'deal',
    where: 'true',
    order: 'updated_at desc, id desc',
  },
  {
    name: 'deals, by value',
    path: 'deals?limit=50&sort=-value',
    table: 'deal',
    where: 'value_amount is not null',
    order: 'value_amount desc, id desc',
  },
  {
    name: 'deals, by a number of a field of one’s own',
    path: `deals?limit=50&${filter({ of: { field: 'bays' }, test: 'between', value: [10, 11] })}`,
    table: 'deal',
    where: `(custom -> 'bays')::numeric between 10 and 11`,
    order: 'updated_at desc, id desc',
  },
];

/** The page as a hand would write it: its rows, how many there are (up to ten thousand), and what they are linked to. */
const rowsSql = ({ table, where, order }: Case) =>
  `select * from ${table} where workspace_id = $1 and ${where} order by ${order} limit 51`;
const countSql = ({ table, where }: Case) =>
  `select count(*) from (select 1 from ${table} where workspace_id = $1 and ${where} limit 10001) c`;
const LINKS = `select l.from_id, l.to_id, c.full_name, d.name from record_link l
  left join contact c on c.workspace_id = $1 and c.id = l.to_id left join deal d on d.workspace_id = $1 and d.id = l.from_id
  where l.workspace_id = $1 and (l.from_id = any($2) or l.to_id = any($2))`;

const databaseUrl = await freshDatabase('bench_lists');
const { services, workspaceId } = await prepare(databaseUrl);
await services.database.inWorkspace(workspaceId, async (tx) => {
  const options = ['moss', 'fern', 'reed', 'leek', 'bean', 'pear', 'orchid'].map((label) => ({ label }));
  await services.fields.make(
    tx,
    [
      { record: 'contact', label: 'Growing for', type: 'one-of', options },
      { record: 'deal', label: 'Bays', type: 'whole-number' },
    ],
    () => '',
  );
  await services.labels.add(tx, 'tag', 'Press', null);
});
const token = await services.tokens.makeFor('bench', 'bench');
await services.close();

const client = new pg.Client({ connectionString: databaseUrl });
await client.connect();
await fill(client, workspaceId);
const server = await startServer(databaseUrl, 'web', PORT);
try {
  const figures: Record<string, number> = {};
  const sums = { served: 0, bare: 0 };
  for (const one of CASES) {
    const rounds: { served: number; bare: number }[] = [];
    for (let round = 0; round <= ROUNDS; round += 1)
      rounds.push({ bare: await timed(() => bare(one)), served: await timed(() => served(one)) });
    // The first round fills caches.
    const warm = rounds.slice(1);
    const [servedMs, bareMs] = [median(warm.map((r) => r.served)), median(warm.map((r) => r.bare))];
    sums.served += servedMs;
    sums.bare += bareMs;
    figures[`${one.name}, ms`] = servedMs;
    figures[`${one.name}, bare SQL ms`] = bareMs;
  }
  const ratio = sums.served / sums.bare;
  report({
    bench: 'lists',
    ratio,
    goal: GOAL,
    met: ratio <= GOAL,
    figures: { ...figures, contacts: CONTACTS, deals: DEALS },
  });
} finally {
  server.kill();
  await client.end();
}

async function bare(one: Case): Promise<void> {
  const { rows } = await client.query<{ id: string }>(rowsSql(one), [workspaceId]);
  await client.query(countSql(one), [workspaceId]);
  await client.query(LINKS, [workspaceId, rows.map(({ id }) => id)]);
}

async function served({ path }: Case): Promise<void> {
  const response = await fetch(`http://127.0.0.1:${PORT}/api/v1/${path}`, {
    headers: { authorization: `Bearer ${token}` },
  });
  if (!response.ok) throw new Error(`${path} answered ${response.status}: ${await response.text()}`);
  await response.arrayBuffer();
}

async function timed(work: () => Promise<void>): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

/** A million made-up contacts, and deals of some of them. */
async function fill(db: pg.Client, workspace: string): Promise<void> {
  const at = (n: string) => `now() - (${n} * interval '31 seconds')`;
  await db.query(
    `insert into contact (workspace_id, id, number, first_name, last_name, full_name, email, country, source, tags, custom, created_at, updated_at)
     select $1, gen_random_uuid(), n, 'Person', n::text, case when n % 50 = 0 then null else 'Person ' || n end, 'person.' || n || '@weir' || n % 9000 || '.example',
       (array['GB', 'NL', 'DE', 'IE', 'CA'])[1 + n % 5], 'fair', case when n % 2000 = 0 then '{press}'::text[] else '{}' end,
       jsonb_build_object('growing_for', case when n % 10000 = 7 then 'orchid' else (array['moss', 'fern', 'reed', 'leek', 'bean', 'pear'])[1 + n % 6] end),
       ${at('n')}, ${at('(n::bigint * 7919 % 1000003)')}
     from generate_series(1, ${CONTACTS}) n`,
    [workspace],
  );
  await db.query(
    `insert into deal (workspace_id, id, number, name, value_amount, value_currency, pipeline, stage, status, stage_since, custom, created_at, updated_at)
     select $1, gen_random_uuid(), n, 'Deal ' || n, case when n % 3 = 0 then null else n::bigint * 37 % 9000000 end, case when n % 3 = 0 then null else 'GBP' end,
       'new-builds', 'enquiry', 'open', ${at('n')}, jsonb_build_object('bays', n % 40), ${at('n')}, ${at('(n::bigint * 7919 % 200003)')}
     from generate_series(1, ${DEALS}) n`,
    [workspace],
  );
  await db.query(
    `insert into record_link (workspace_id, from_kind, from_id, to_kind, to_id, at)
     select $1, 'deal', d.id, 'contact', c.id, now() from deal d join contact c on c.workspace_id = d.workspace_id and c.number = d.number * 5`,
    [workspace],
  );
  // As if recognition had looked at all of them; it would begin with that otherwise, beside what is measured.
  await db.query(
    'insert into recognition (workspace_id, looked_until, looked_transaction) values ($1, $2, pg_current_xact_id())',
    [workspace, v7()],
  );
  await db.query('vacuum analyze');
}
