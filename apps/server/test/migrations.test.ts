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
  await prepareDatabase({ databaseUrl }, MIGRATIONS);

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
