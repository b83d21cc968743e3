import type pg from 'pg';

/** Counts anew what is kept, after rows were changed behind the back of what keeps it; arrivals are counted as they are read. */
export async function recount(client: pg.Client): Promise<void> {
  for (const statement of [
    'truncate run_count, arrival_count, submission_search, submission_reading',
    `insert into run_count (workspace_id, day, intake_id, route_id, outcome, runs, folded)
     select r.workspace_id, (s.received_at at time zone 'utc')::date, s.intake_id, r.route_id, r.outcome, count(*), true
     from run r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id group by 1, 2, 3, 4, 5`,
  ])
    await client.query(statement);
}
