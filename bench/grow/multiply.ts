import type pg from 'pg';

/** Rows that are made anew for each time, in an order that foreign keys allow. */
const TABLES = [
  'submission',
  'run',
  'attempt',
  'contact',
  'company',
  'deal',
  'record_link',
  'record_change',
  'touch',
  'identity_key',
  'record_block',
  'stage_move',
];
/** Ids of what there is one of, however much arrives. */
const KEPT = new Set(['workspace_id', 'intake_id', 'route_id', 'due_routes']);

/**
 * Puts the year of a database on top of itself so many times in all, each a few minutes apart: rows are copied with other
 * ids, which refer to one another as those of the original do, and with other numbers and keys.
 */
export async function multiply(client: pg.Client, times: number): Promise<void> {
  // Foreign keys hold by how ids are made; looking each up takes most of the time.
  await client.query(`set session_replication_role = replica`);
  await client.query(
    `create function pg_temp.grown(id uuid, k int) returns uuid language sql immutable as $$
       select (substr(id::text, 1, 19) || substr(md5(id::text || ' ' || k), 1, 4) || '-' || substr(md5(id::text || ' ' || k), 5, 12))::uuid $$`,
  );
  for (const table of TABLES) {
    const { rows } = await client.query<{ name: string; type: string }>(
      `select column_name as name, data_type as type from information_schema.columns
       where table_name = $1 and table_schema = 'public' and is_generated = 'NEVER' order by ordinal_position`,
      [table],
    );
    const values = rows.map(({ name, type }) => grown(table, name, type));
    await client.query(
      `insert into ${table} (${rows.map(({ name }) => name).join(', ')})
       select ${values.join(', ')} from (select * from ${table} offset 0) t, generate_series(1, ${times - 1}) k`,
    );
  }
  await client.query(`set session_replication_role = default`);
}

function grown(table: string, name: string, type: string): string {
  if (type === 'uuid' && !KEPT.has(name)) return `pg_temp.grown(t.${name}, k)`;
  if (name === 'number') return `t.number + k * 10000000`;
  if (table === 'identity_key' && name === 'value') return `t.value || '.' || k`;
  if (type.startsWith('timestamp')) return `t.${name} - k * interval '7 minutes'`;
  return `t.${name}`;
}
