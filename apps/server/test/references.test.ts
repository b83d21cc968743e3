import { afterAll, beforeAll, expect, test } from '@jest/globals';
import pg from 'pg';
import { asOwner, newDatabase } from './support/test-server';

/** Columns that hold the id of something and state no foreign key, by the reason for it. */
const WITHOUT: Record<string, string[]> = {
  'a record of any kind, or one that may lie in the bin': [
    'consent.contact_id',
    'consent_link.contact_id',
    'assignment.record_id',
    'identity_key.record_id',
    'journey.record_id',
    'journey_due.record_id',
    'journey_step.record_id',
    'list_membership.contact_id',
    'look_alike.one_id',
    'look_alike.other_id',
    'note.record_id',
    'outbox.record_id',
    'record_block.record_id',
    'record_change.record_id',
    'record_file.record_id',
    'record_link.from_id',
    'record_link.to_id',
    'record_merge.absorbed_id',
    'record_merge.survivor_id',
    'stage_move.record_id',
    'task.record_id',
    'touch.record_id',
  ],
  'made from touches, which state it, and made anew with them': ['journey_step.visit_id'],
  'a cause of any kind: an attempt, an act, a merge': ['record_change.cause_id', 'record_merge.cause_id'],
  'written before what it names, in the same transaction, for each run': ['run.attempt_id', 'touch.attempt_id'],
  'an act that an area after this one keeps': ['contact_list.retired_in', 'tag.retired_in'],
  'somebody of any kind: a person, a token': ['audit.actor_id'],
  'how far something is read, and nothing that must still be there': [
    'intake_profile.upto_id',
    'recognition.looked_until',
    'submission_reading.until',
  ],
};

let database: pg.Client;

beforeAll(async () => {
  database = new pg.Client({ connectionString: asOwner(await newDatabase()) });
  await database.connect();
});
afterAll(() => database.end());

test('each column that names a row of another table states it, or stands in the list with the reason', async () => {
  const { rows } = await database.query<{ name: string }>(
    `select c.relname || '.' || a.attname as name from pg_class c
     join pg_namespace n on n.oid = c.relnamespace and n.nspname = 'public'
     join pg_attribute a on a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped
     where c.relkind = 'r' and a.atttypid = 'uuid'::regtype and a.attname <> 'workspace_id'
       and not exists (select 1 from pg_constraint k where k.conrelid = c.oid and k.contype = 'f' and a.attnum = any(k.conkey))
       -- Its own id.
       and a.attname <> 'id' order by 1`,
  );
  const listed = Object.values(WITHOUT).flat().sort();
  expect(rows.map(({ name }) => name)).toEqual(listed);
  expect(new Set(listed).size).toBe(listed.length);
});

test('every row is of a workspace, and no workspace is ever removed', async () => {
  const { rows } = await database.query<{ name: string }>(
    `select c.relname as name from pg_class c join pg_namespace n on n.oid = c.relnamespace and n.nspname = 'public'
     where c.relkind = 'r' and not exists (select 1 from pg_attribute a where a.attrelid = c.oid and a.attname = 'workspace_id' and a.attnotnull)
     order by 1`,
  );
  expect(rows.map(({ name }) => name)).toEqual(['job_worker', 'workspace', 'wrong_try']);
  const { rows: may } = await database.query(
    `select has_table_privilege('haycart_server', 'workspace', 'delete') as removes`,
  );
  expect(may).toEqual([{ removes: false }]);
});
