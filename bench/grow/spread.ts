import type pg from 'pg';

/** A time of the last year that stays the same for the same id. */
const timeOf = (id: string) =>
  `now() - interval '1 minute' - (('x' || substr(md5(${id}::text), 1, 7))::bit(28)::int / 268435456.0) * interval '365 days'`;

/** Puts what was routed just now into the year before, evenly: what arrived, its runs, its records and their history. */
export async function spread(client: pg.Client): Promise<void> {
  for (const statement of [
    `update submission set received_at = ${timeOf('id')}`,
    `update run r set started_at = s.received_at + interval '1 second', finished_at = s.received_at + interval '2 seconds'
     from submission s where s.workspace_id = r.workspace_id and s.id = r.submission_id`,
    `update record_change c set at = r.finished_at from run r where r.workspace_id = c.workspace_id and r.attempt_id = c.cause_id`,
    ...['contact', 'company', 'deal'].map(
      (kind) => `update ${kind} set created_at = ${timeOf('id')}, updated_at = ${timeOf('id')}`,
    ),
    // Most deals are closed in time.
    `update deal set stage_since = created_at,
       stage = case when created_at < now() - interval '40 days' then 'won' else stage end,
       status = case when created_at < now() - interval '40 days' then 'won' else status end,
       closed_at = case when created_at < now() - interval '40 days' then created_at + interval '30 days' end`,
    `update stage_move m set at = d.stage_since from deal d where d.workspace_id = m.workspace_id and d.id = m.record_id`,
  ])
    await client.query(statement);
  await client.query('vacuum full analyze');
}
