import pg from 'pg';
import { databaseFailure } from '../database/failure';
import { connectionSettings } from '../database/database';

/**
 * A code that the job library takes for a failure that passes. It knows lost connections by few codes and takes the others
 * for its own defect, which ends its runner half-way and leaves a rejection that nobody hears.
 */
const PASSES = '40001';

/**
 * Returns the connections of the job library, on which every lost connection is an error that it tries again after. Once they
 * are ended a job that did not end in time is never answered: it is done again by whoever comes, and its library would leave a
 * rejection that nobody hears.
 */
export function jobsPool(url: string): pg.Pool {
  const pool = new pg.Pool({ ...connectionSettings(url, 'haycart jobs'), max: 6 });
  const connect = pool.connect.bind(pool) as () => Promise<pg.PoolClient>;
  pool.connect = ((then?: (error: Error | undefined, client?: pg.PoolClient, release?: unknown) => void) => {
    if (pool.ending) return then ? undefined : new Promise<never>(() => {});
    const connected = connect().catch((cause: unknown) => {
      throw passing(cause);
    });
    if (!then) return connected;
    connected.then(
      (client) => then(undefined, client, (error?: Error) => client.release(error)),
      (cause: Error) => then(cause),
    );
    return undefined;
  }) as typeof pool.connect;
  pool.on('error', () => {});
  pool.on('connect', (client) => {
    client.on('error', () => {});
    const query = client.query.bind(client) as (...given: unknown[]) => unknown;
    client.query = ((...given: unknown[]) => {
      const answer = query(...given);
      return answer instanceof Promise
        ? answer.catch((cause: unknown) => {
            throw passing(cause);
          })
        : answer;
    }) as typeof client.query;
  });
  return pool;
}

function passing(cause: unknown): unknown {
  return databaseFailure(cause) === 'unreachable' && cause instanceof Error
    ? Object.assign(cause, { code: PASSES })
    : cause;
}
