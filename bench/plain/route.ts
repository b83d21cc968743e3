import { randomUUID } from 'node:crypto';
import { companyDomain, normalEmail } from '@haycart/core';
import pg from 'pg';

interface Waiting {
  id: string;
  body: Buffer;
  received_at: Date;
}

/**
 * The yardstick: routing as one writes it first. It makes the same reads and writes as the real one (contact by e-mail,
 * company by domain, deal, source, history, run), one after the other, in one transaction for each submission.
 */
export async function routePlainly(
  databaseUrl: string,
  workspaceId: string,
  routeId: string,
  workers: number,
): Promise<number> {
  const pool = new pg.Pool({ connectionString: databaseUrl, max: workers });
  let routed = 0;
  const work = async () => {
    const client = await pool.connect();
    while (await routeOne(client, workspaceId, routeId)) routed += 1;
    client.release();
  };
  await Promise.all(Array.from({ length: workers }, work));
  await pool.end();
  return routed;
}

async function routeOne(client: pg.PoolClient, workspaceId: string, routeId: string): Promise<boolean> {
  await client.query('begin');
  await client.query(`select set_config('haycart.workspace', $1, true)`, [workspaceId]);
  const { rows } = await client.query<Waiting>(
    `select id, body, received_at from submission where workspace_id = $1 and state = 'waiting' and due_at <= now() order by due_at, id limit 1 for update skip locked`,
    [workspaceId],
  );
  const submission = rows[0];
  if (!submission) {
    await client.query('commit');
    return false;
  }
  const startedAt = new Date();
  const answers = JSON.parse(submission.body.toString()) as Record<string, string>;
  const read = normalEmail(answers.email ?? '');
  const email = read.ok ? read.email : '';
  const domain = companyDomain(email);
  const at = submission.received_at;
  const change = async (kind: string, id: string, values: object, cause: string) =>
    client.query(
      'insert into record_change (workspace_id, id, record_kind, record_id, at, cause_kind, cause_id, diff) values ($1, $2, $3, $4, $5, $6, $7, $8)',
      [workspaceId, randomUUID(), kind, id, at, 'run', cause, JSON.stringify({ created: { [id]: { kind, values } } })],
    );
  const number = async (kind: string) =>
    (
      await client.query<{ last: string }>(
        'insert into record_counter (workspace_id, record_kind, last) values ($1, $2, 1) on conflict (workspace_id, record_kind) do update set last = record_counter.last + 1 returning last',
        [workspaceId, kind],
      )
    ).rows[0]!.last;
  const withKey = async (kind: string, key: string, value: string) => {
    await client.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [`${kind} ${key} ${value}`]);
    const found = await client.query<{ record_id: string }>(
      'select record_id from identity_key where workspace_id = $1 and record_kind = $2 and key_kind = $3 and value = $4',
      [workspaceId, kind, key, value],
    );
    const id = found.rows[0]?.record_id;
    if (id)
      await client.query(`select * from ${kind} where workspace_id = $1 and id = $2 for update`, [workspaceId, id]);
    return id;
  };
  const addKey = (kind: string, key: string, value: string, id: string) =>
    client.query(
      'insert into identity_key (workspace_id, record_kind, key_kind, value, record_id) values ($1, $2, $3, $4, $5)',
      [workspaceId, kind, key, value, id],
    );
  const link = (fromKind: string, from: string, toKind: string, to: string) =>
    client.query(
      'insert into record_link (workspace_id, from_kind, from_id, to_kind, to_id, at) values ($1, $2, $3, $4, $5, $6) on conflict do nothing',
      [workspaceId, fromKind, from, toKind, to, at],
    );
  const run = randomUUID();

  // Always in the same order, company first, so that workers do not wait for each other in a circle.
  let company = domain ? await withKey('company', 'domain', domain) : undefined;
  let contact = await withKey('contact', 'email', email);
  if (domain && !company) {
    company = randomUUID();
    const values = { name: answers.company ?? domain, domain, source: 'direct' };
    await client.query(
      'insert into company (workspace_id, id, number, name, domain, source, created_at, updated_at) values ($1, $2, $3, $4, $5, $6, $7, $7)',
      [workspaceId, company, await number('company'), values.name, domain, 'direct', at],
    );
    await addKey('company', 'domain', domain, company);
    await change('company', company, values, run);
  }
  const name = `${answers.first} ${answers.last}`;
  if (!contact) {
    contact = randomUUID();
    const values = {
      first_name: answers.first,
      last_name: answers.last,
      full_name: name,
      email,
      phone: answers.phone,
      source: 'direct',
    };
    await client.query(
      'insert into contact (workspace_id, id, number, first_name, last_name, full_name, email, emails, phone, phones, source, created_at, updated_at) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $12)',
      [
        workspaceId,
        contact,
        await number('contact'),
        answers.first,
        answers.last,
        name,
        email,
        [email],
        answers.phone,
        [answers.phone],
        'direct',
        at,
      ],
    );
    await addKey('contact', 'email', email, contact);
    await addKey('contact', 'phone', answers.phone!, contact);
    await change('contact', contact, values, run);
  } else {
    await client.query('update contact set phone = $3, updated_at = $4 where workspace_id = $1 and id = $2', [
      workspaceId,
      contact,
      answers.phone,
      at,
    ]);
  }
  if (company) await link('contact', contact, 'company', company);
  const open = await client.query<{ id: string }>(
    `select d.id from record_link l join deal d on d.workspace_id = l.workspace_id and d.id = l.from_id where l.workspace_id = $1 and l.to_id = $2 and l.from_kind = 'deal' and d.status = 'open' limit 1`,
    [workspaceId, contact],
  );
  let deal = open.rows[0]?.id;
  if (!deal) {
    deal = randomUUID();
    const values = { name, pipeline: 'new-builds', stage: 'enquiry', status: 'open', source: 'direct' };
    await client.query(
      'insert into deal (workspace_id, id, number, name, pipeline, stage, status, stage_since, source, created_at, updated_at) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $8, $8)',
      [workspaceId, deal, await number('deal'), name, 'new-builds', 'enquiry', 'open', at, 'direct'],
    );
    await change('deal', deal, values, run);
    await link('deal', deal, 'contact', contact);
    if (company) await link('deal', deal, 'company', company);
  }
  await client.query(
    `with way as (
       insert into touch_source (workspace_id, channel, source) values ($1, $4, $4)
       on conflict (workspace_id, digest) do update set channel = excluded.channel returning id),
     seen as (
       insert into touch_way (workspace_id, way) values ($1, '{}')
       on conflict (workspace_id, digest) do update set way = excluded.way returning id)
     insert into visit (workspace_id, id, at, source_id, way_id) select $1, $2, $3, way.id, seen.id from way, seen`,
    [workspaceId, submission.id, at, 'direct'],
  );
  for (const [kind, record] of [
    ['contact', contact],
    ['deal', deal],
    ['company', company],
  ] as const) {
    if (!record) continue;
    await client.query(
      'insert into touch (workspace_id, id, record_kind, record_id, attempt_id, visit_id) values ($1, $2, $3, $4, $5, $6)',
      [workspaceId, randomUUID(), kind, record, run, submission.id],
    );
  }
  const plan = JSON.stringify({
    outcome: 'write',
    writes: [
      { record: 'contact', id: contact, answers },
      { record: 'deal', id: deal },
    ],
  });
  await client.query(
    `with kept as (
       insert into run (workspace_id, id, attempt_id, submission_id, route_id, version, outcome, summary, started_at, finished_at)
       values ($1, $2, $2, $3, $4, 1, 'written', 'written', $6, now()))
     insert into attempt (workspace_id, id, run_id, why, version, outcome, summary, plan, started_at, finished_at)
     values ($1, $2, $2, 'arrival', 1, 'written', 'written', $5, $6, now())`,
    [workspaceId, run, submission.id, routeId, plan, startedAt],
  );
  await client.query(`update submission set state = 'routed', turns = turns + 1 where workspace_id = $1 and id = $2`, [
    workspaceId,
    submission.id,
  ]);
  await client.query(`select pg_notify('haycart', $1)`, [JSON.stringify({ workspaceId, topics: ['runs', 'records'] })]);
  await client.query('commit');
  return true;
}
