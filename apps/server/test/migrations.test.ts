import { randomUUID } from 'node:crypto';
import { cpSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, expect, test } from '@jest/globals';
import pg from 'pg';
import { prepareDatabase } from '../src/platform/database/migrate';
import { MIGRATIONS } from './support/test-server';

interface Journal {
  entries: { tag: string }[];
}

const open: pg.Client[] = [];
afterEach(() => Promise.all(open.splice(0).map((client) => client.end())));

/** The migrations up to one of them, as they were before those after it were written. */
function upTo(tag: string): string {
  const folder = mkdtempSync(join(tmpdir(), 'haycart-migrations-'));
  cpSync(MIGRATIONS, folder, { recursive: true });
  const path = join(folder, 'meta', '_journal.json');
  const journal = JSON.parse(readFileSync(path, 'utf8')) as Journal;
  const last = journal.entries.findIndex((entry) => entry.tag === tag);
  writeFileSync(path, JSON.stringify({ ...journal, entries: journal.entries.slice(0, last + 1) }));
  return folder;
}

/** A database as it was after one migration, with rows of then; what they refer to is not looked up. */
async function databaseOf(tag: string, rows: string[]): Promise<{ databaseUrl: string; owner: pg.Client }> {
  const cluster = process.env.HAYCART_TEST_CLUSTER!;
  const name = `t_${randomUUID().replaceAll('-', '')}`;
  const admin = new pg.Client({ connectionString: `${cluster}/postgres` });
  await admin.connect();
  await admin.query(`create database ${name}`);
  await admin.end();
  const databaseUrl = `${cluster}/${name}`;
  await prepareDatabase({ databaseUrl }, upTo(tag));
  const owner = new pg.Client({ connectionString: databaseUrl });
  await owner.connect();
  open.push(owner);
  await owner.query('set session_replication_role = replica');
  for (const row of rows) await owner.query(row);
  return { databaseUrl, owner };
}

test('runs from before attempts were kept have theirs, with the plans, causes and takers back that they had', async () => {
  const id = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
  const [workspace, route] = [id(1), id(2)];
  const run = (table: string, n: number, submission: number, outcome: string, takenBackBy: string | null = null) =>
    `insert into ${table} (workspace_id, id, submission_id, route_id, version, outcome, reason_code, summary, plan, started_at, finished_at, taken_back_by)
     values ('${workspace}', '${id(n)}', '${id(submission)}', '${route}', 3, '${outcome}', ${outcome === 'failed' ? `'missing'` : 'null'}, 'run ${n}', '{"outcome":"write","n":${n}}',
       '2026-01-0${n % 9 || 1}', '2026-01-0${n % 9 || 1}', ${takenBackBy ? `'${takenBackBy}'` : 'null'})`;
  const { databaseUrl, owner } = await databaseOf('0040_earlier_runs', [
    run('run', 11, 21, 'written'),
    run('run', 15, 22, 'failed'),
    run('earlier_run', 12, 22, 'held'),
    run('earlier_run', 13, 22, 'taken-back', id(31)),
    run('run', 14, 23, 'taken-back', id(32)),
    `insert into touch (workspace_id, id, record_kind, record_id, run_id, at, channel, source)
     values ('${workspace}', '${id(41)}', 'contact', '${id(42)}', '${id(13)}', now(), 'direct', 'direct')`,
  ]);
  await prepareDatabase({ databaseUrl }, upTo('0041_attempts'));

  const { rows: attempts } = await owner.query(
    'select id, run_id, why, outcome, taken_back_by, plan from attempt order by id',
  );
  const attempt = (n: number, of: number, why: string, outcome: string, takenBackBy: string | null = null) => ({
    id: id(n),
    run_id: id(of),
    why,
    outcome,
    taken_back_by: takenBackBy,
    plan: { outcome: 'write', n },
  });
  expect(attempts).toEqual([
    attempt(11, 11, 'arrival', 'written'),
    attempt(12, 15, 'arrival', 'held'),
    attempt(13, 15, 'again', 'written', id(31)),
    attempt(14, 14, 'arrival', 'written', id(32)),
    attempt(15, 15, 'again', 'failed'),
  ]);
  const { rows: runs } = await owner.query('select id, attempt_id, outcome, waits_for from run order by id');
  expect(runs).toEqual([
    { id: id(11), attempt_id: id(11), outcome: 'written', waits_for: null },
    { id: id(14), attempt_id: id(14), outcome: 'taken-back', waits_for: null },
    { id: id(15), attempt_id: id(15), outcome: 'failed', waits_for: expect.stringMatching(/^failed\.[0-9a-f]{32}$/) },
  ]);
  expect((await owner.query('select attempt_id from touch')).rows).toEqual([{ attempt_id: id(13) }]);
});

test('touches from before visits were kept once tell what they told', async () => {
  const id = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
  const workspace = id(1);
  const touch = (n: number, record: number, attempt: number, at: string, source: string) =>
    `insert into touch (workspace_id, id, record_kind, record_id, attempt_id, at, channel, source, medium, page)
     values ('${workspace}', '${id(n)}', 'contact', '${id(record)}', '${id(attempt)}', '${at}', 'e-mail', '${source}', 'email', '/${source}')`;
  const ran = (attempt: number, submission: number) => [
    `insert into run (workspace_id, id, attempt_id, submission_id, route_id, version, outcome, summary, started_at, finished_at)
     values ('${workspace}', '${id(attempt)}', '${id(attempt)}', '${id(submission)}', '${id(2)}', 1, 'written', '', now(), now())`,
    `insert into attempt (workspace_id, id, run_id, why, version, outcome, summary, started_at, finished_at)
     values ('${workspace}', '${id(attempt)}', '${id(attempt)}', 'arrival', 1, 'written', '', now(), now())`,
  ];
  const arrived = (submission: number, visit: object) =>
    `insert into submission (workspace_id, id, intake_id, received_at, format, body, visit, due_at)
     values ('${workspace}', '${id(submission)}', '${id(3)}', now(), 'json', '', '${JSON.stringify(visit)}', now())`;
  const { databaseUrl, owner } = await databaseOf('0048_labels_brought_back', [
    ...ran(11, 21),
    ...ran(12, 22),
    arrived(21, { utm_source: 'spring', enteredBy: 'robin' }),
    arrived(22, { sheet: 'People' }),
    arrived(23, { page: '/' }),
    // One submission touched two records; a touch of old whose attempt is not there stands by itself.
    touch(41, 51, 11, '2026-01-01', 'spring'),
    touch(42, 52, 11, '2026-01-01', 'spring'),
    touch(43, 51, 12, '2026-02-01', 'summer'),
    touch(44, 51, 99, '2026-03-01', 'autumn'),
  ]);
  const told = (from: string) =>
    owner.query(`select t.id, record_id, at, channel, source, medium, campaign, page from ${from} order by t.id`);
  const before = await told('touch t');
  await prepareDatabase({ databaseUrl }, MIGRATIONS);
  const after = await told(
    'touch t join visit v on v.workspace_id = t.workspace_id and v.id = t.visit_id join touch_source s on s.workspace_id = v.workspace_id and s.id = v.source_id',
  );
  expect(after.rows).toEqual(before.rows);
  expect((await owner.query('select id from visit order by id')).rows.map((row) => row.id)).toEqual([
    id(21),
    id(22),
    id(44),
  ]);
  expect((await owner.query('select visit, origin from submission order by id')).rows).toEqual([
    { visit: { utm_source: 'spring' }, origin: { enteredBy: 'robin' } },
    { visit: {}, origin: { sheet: 'People' } },
    { visit: { page: '/' }, origin: {} },
  ]);
});

test('forms from before they had a table of their own are what they were, and an endpoint is none', async () => {
  const id = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
  const form = (n: number, slug: string, more: Record<string, string> = {}) => {
    const columns = { draft: `'{"title":"${slug}"}'`, draft_revision: '7', version: '0', ...more };
    return `insert into intake (workspace_id, id, key, kind, name, state, slug, ${Object.keys(columns).join(', ')})
      values ('${id(1)}', '${id(n)}', 'k${n}', 'form', '${slug}', 'live', '${slug}', ${Object.values(columns).join(', ')})`;
  };
  const { databaseUrl, owner } = await databaseOf('0050_touches_of_visits', [
    form(11, 'visit', {
      form: `'{"title":"Visit"}'`,
      version: '3',
      for_colleagues: 'true',
      closed_message: `'Later.'`,
    }),
    form(12, 'visit-2', { copied_from: `'${id(11)}'`, trial: `'{"version":2,"share":0.5}'` }),
    `insert into intake (workspace_id, id, key, kind, name) values ('${id(1)}', '${id(13)}', 'k13', 'endpoint', 'Dealers')`,
  ]);
  const columns = 'slug, form, version, trial, for_colleagues, closed_message, draft, draft_revision, copied_from';
  const before = await owner.query(`select id as intake_id, ${columns} from intake where kind = 'form' order by id`);
  await prepareDatabase({ databaseUrl }, MIGRATIONS);
  expect((await owner.query(`select intake_id, ${columns} from form order by intake_id`)).rows).toEqual(before.rows);
  const found = async (key: string | null, slug: string | null) =>
    (await owner.query('select id, slug, version, for_colleagues from gate_intake($1, $2)', [key, slug])).rows;
  expect(await found('k11', null)).toEqual([{ id: id(11), slug: 'visit', version: 3, for_colleagues: true }]);
  expect(await found(null, 'visit-2')).toEqual([{ id: id(12), slug: 'visit-2', version: 0, for_colleagues: false }]);
  expect(await found('k13', null)).toEqual([{ id: id(13), slug: null, version: 0, for_colleagues: false }]);
  expect(await found(null, 'other')).toEqual([]);
});
