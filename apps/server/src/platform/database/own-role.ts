import type pg from 'pg';

/** The role that holds the server's privileges; the migrations make it, and the server's login is a member of it. */
export const SERVER_ROLE = 'haycart_server';

/** A connection that could see or do more than the server may. Nothing is asked on it. */
export class WrongRole extends Error {
  override name = 'WrongRole';
}

const MAY_MORE = `
  select coalesce(bool_or(r.rolsuper or r.rolbypassrls or r.rolcreaterole
      or pg_has_role(r.oid, (select relowner from pg_class where oid = 'public.workspace'::regclass), 'member')), true)
    or not bool_and(pg_has_role(r.oid, '${SERVER_ROLE}', 'usage')) as more
  from pg_roles r where r.rolname in (current_user, session_user)`;

/**
 * Refuses a connection whose login, or the role it has taken, is not held by row-level security: through a pooler, or by
 * a wrong address, such a connection would read every workspace.
 *
 * @throws WrongRole
 */
export async function assertOwnRole(client: pg.ClientBase): Promise<void> {
  const { rows } = await client.query<{ more: boolean }>(MAY_MORE);
  if (rows[0]!.more)
    throw new WrongRole(
      `this database login may do more than the server should. Give one that is a member of ${SERVER_ROLE}, and neither owner nor superuser.`,
    );
}
