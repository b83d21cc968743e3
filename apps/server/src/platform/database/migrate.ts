import { createHmac } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { runMigrations } from 'graphile-worker';
import pg from 'pg';
import { SERVER_ROLE } from './own-role';

/** Any number: it names the lock under which one process at a time migrates. */
const MIGRATION_LOCK = 4_600_001;

/** The addresses of a database: of the login that the server works as, and of the owner, where that is another. */
export interface DatabaseAddresses {
  databaseUrl: string;
  ownerUrl?: string | null;
  /** From which the password of the server's login follows where the owner has none. */
  secretKeys?: readonly Buffer[];
}

/** The database is not as it must be, and this login cannot bring it there. */
export class DatabaseNotReady extends Error {
  override name = 'DatabaseNotReady';
}

/**
 * Brings the database to the newest schema as its owner, and returns the address of a login for the server that owns
 * nothing and cannot become anybody else. Where the address given is the owner's, the login is made here; its password
 * follows from the owner's, so that every process finds the same. Safe to run from several processes at once.
 *
 * @throws DatabaseNotReady when the schema is old and the address is not the owner's.
 */
export async function prepareDatabase(
  { databaseUrl, ownerUrl, secretKeys = [] }: DatabaseAddresses,
  migrations: string,
): Promise<string> {
  const client = new pg.Client({ connectionString: ownerUrl ?? databaseUrl, connectionTimeoutMillis: 10_000 });
  client.on('error', () => {});
  await client.connect();
  try {
    await client.query('select pg_advisory_lock($1)', [MIGRATION_LOCK]);
    if (!ownerUrl && !(await mayMigrate(client))) return await checkedLogin(client, databaseUrl, migrations);
    await migrate(drizzle({ client }), { migrationsFolder: migrations });
    await runMigrations({ connectionString: ownerUrl ?? databaseUrl });
    await client.query(GRANT_JOBS);
    if (!ownerUrl) return await makeLogin(client, databaseUrl, secretKeys[0]);
    await grantRole(client, decodeURIComponent(new URL(databaseUrl).username));
    return databaseUrl;
  } finally {
    await client.end();
  }
}

/** The job library's tables and functions, for the server. */
const GRANT_JOBS = `
  grant usage on schema graphile_worker to ${SERVER_ROLE};
  grant select, insert, update, delete on all tables in schema graphile_worker to ${SERVER_ROLE};
  grant usage on all sequences in schema graphile_worker to ${SERVER_ROLE};
  grant execute on all functions in schema graphile_worker to ${SERVER_ROLE};
  do $$ declare t record; begin
    for t in select c.relname from pg_class c join pg_namespace n on n.oid = c.relnamespace
      where n.nspname = 'graphile_worker' and c.relkind = 'r' and c.relrowsecurity loop
      if not exists (select 1 from pg_policies where schemaname = 'graphile_worker' and tablename = t.relname and policyname = 'server') then
        execute format('create policy server on graphile_worker.%I to ${SERVER_ROLE} using (true) with check (true)', t.relname);
      end if;
    end loop;
  end $$`;

/** Returns whether a login owns the tables, or may make them where there are none. */
async function mayMigrate(client: pg.Client): Promise<boolean> {
  const { rows } = await client.query<{ may: boolean }>(
    `select coalesce(pg_has_role(current_user, (select relowner from pg_class where oid = to_regclass('public.workspace')), 'member'),
       has_schema_privilege(current_user, 'public', 'create')) as may`,
  );
  return rows[0]!.may;
}

async function checkedLogin(client: pg.Client, url: string, migrations: string): Promise<string> {
  const { rows } = await client
    .query<{ done: number }>('select gate_migrations() as done')
    .catch(() => ({ rows: [{ done: 0 }] }));
  const all = readdirSync(migrations).filter((name) => name.endsWith('.sql')).length;
  if (rows[0]!.done < all)
    throw new DatabaseNotReady(
      'the database is not up to date, and the login of DATABASE_URL may not change it. Start once with DATABASE_OWNER_URL, the address of the database’s owner.',
    );
  return url;
}

async function makeLogin(client: pg.Client, ownerUrl: string, secretKey: Buffer | undefined): Promise<string> {
  const address = new URL(ownerUrl);
  const secret = decodeURIComponent(address.password) || secretKey;
  if (!secret)
    throw new DatabaseNotReady(
      'the owner of the database has no password that a login for the server could be made from. Give HAYCART_KEY_FILE, or a login of yours in DATABASE_URL and the owner in DATABASE_OWNER_URL.',
    );
  const { rows } = await client.query<{ database: string; known: boolean }>(
    `select current_database() as database, exists (select 1 from pg_roles where rolname = left('haycart_login_' || current_database(), 63)) as known`,
  );
  const login = `haycart_login_${rows[0]!.database}`.slice(0, 63);
  const password = createHmac('sha256', secret).update(`login ${login}`).digest('hex');
  const name = pg.escapeIdentifier(login);
  const as = `login nosuperuser nocreatedb nocreaterole nobypassrls inherit password ${pg.escapeLiteral(password)}`;
  await client.query(`${rows[0]!.known ? 'alter' : 'create'} role ${name} ${as}`);
  await grantRole(client, login);
  address.username = encodeURIComponent(login);
  address.password = password;
  return address.href;
}

async function grantRole(client: pg.Client, login: string): Promise<void> {
  const { rows } = await client.query<{ has: boolean }>(
    `select exists (select 1 from pg_auth_members m join pg_roles g on g.oid = m.roleid join pg_roles l on l.oid = m.member
       where g.rolname = $1 and l.rolname = $2) as has`,
    [SERVER_ROLE, login],
  );
  if (!rows[0]!.has) await client.query(`grant ${SERVER_ROLE} to ${pg.escapeIdentifier(login)}`);
}
