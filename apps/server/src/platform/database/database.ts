import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { LIMITS } from '@haycart/core';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import { isId } from '../paging';
import { databaseFailure } from './failure';
import { assertOwnRole } from './own-role';

/** One transaction of one workspace: the query builder for everyday work, and named statements for the hot paths. */
export interface WorkspaceTx {
  workspaceId: string;
  db: NodePgDatabase;
  /** Runs a statement of ours that is prepared once a connection under its name. */
  statement<Row extends pg.QueryResultRow>(name: string, text: string, values?: unknown[]): Promise<Row[]>;
  /** Runs a statement whose text is put together for the occasion, such as one with a person's filter. */
  unnamed<Row extends pg.QueryResultRow>(text: string, values: unknown[]): Promise<Row[]>;
  /** Does something once the transaction is committed, and before whoever asked for it hears of it. */
  afterCommit(then: () => void): void;
}

/**
 * Returns how the server connects: a peer that is gone is noticed, a statement that is never answered fails, and no
 * connection is used that may do more than the server should.
 */
export function connectionSettings(url: string, name: string): pg.PoolConfig {
  return {
    connectionString: url,
    connectionTimeoutMillis: LIMITS.databaseConnect.most * 1_000,
    query_timeout: LIMITS.databaseStatement.most * 1_000,
    keepAlive: true,
    keepAliveInitialDelayMillis: 10_000,
    application_name: name,
    // eslint-disable-next-line @typescript-eslint/no-misused-promises -- The pool waits for it; its types do not say so.
    onConnect: assertOwnRole,
  };
}

type PlanCacheMode = 'force_custom_plan' | 'force_generic_plan';

/** The one way to the database. All access goes through `inWorkspace`, but for the gates. */
@Injectable()
export class Database implements OnApplicationShutdown {
  readonly pool: pg.Pool;

  constructor(
    readonly url: string,
    connections: number,
  ) {
    this.pool = new pg.Pool({ ...connectionSettings(url, 'haycart'), max: connections });
    // A connection that breaks fails the statement under way, if any, and is replaced; without listeners it would end the process.
    this.pool.on('error', () => {});
    this.pool.on('connect', (client) => client.on('error', () => {}));
  }

  /**
   * Runs work in one transaction that sees nothing but one workspace: row-level security on every table checks the
   * setting made here. What the work throws rolls everything back and is thrown on. Statements are planned for the
   * values they are given: a plan kept from when a table was small makes batches slower the more there is.
   */
  inWorkspace<Result>(workspaceId: string, work: (tx: WorkspaceTx) => Promise<Result>): Promise<Result> {
    return this.#within('begin', workspaceId, work);
  }

  /**
   * The same for the few small looks by index that every page asks for over and over: their plans are kept, since making them
   * takes longer than they do. The database makes them anew when its tables have grown.
   */
  glance<Result>(workspaceId: string, work: (tx: WorkspaceTx) => Promise<Result>): Promise<Result> {
    return this.#within('begin read only', workspaceId, work, 'force_generic_plan');
  }

  /** The same for reading at length: everything is seen as it was at one moment, and nothing can be written. */
  atOneMoment<Result>(workspaceId: string, work: (tx: WorkspaceTx) => Promise<Result>): Promise<Result> {
    return this.#within('begin isolation level repeatable read, read only', workspaceId, work);
  }

  async #within<Result>(
    begin: string,
    workspaceId: string,
    work: (tx: WorkspaceTx) => Promise<Result>,
    plans: PlanCacheMode = 'force_custom_plan',
  ): Promise<Result> {
    const client = await this.pool.connect();
    let broken: Error | undefined;
    const committed: (() => void)[] = [];
    try {
      await client.query(enter(begin, workspaceId, plans));
      const result = await work({
        workspaceId,
        db: drizzle({ client }),
        statement: (name, text, values) => named(client, name, text, values),
        unnamed: async <Row extends pg.QueryResultRow>(text: string, values: unknown[]) =>
          (await client.query<Row>(text, values)).rows,
        afterCommit: (then) => committed.push(then),
      });
      await client.query('commit');
      for (const then of committed) then();
      return result;
    } catch (cause) {
      // A connection that does not answer would not answer this either.
      if (databaseFailure(cause) === 'unreachable') broken = cause as Error;
      else
        await client.query('rollback').catch((rollbackCause: Error) => {
          broken = rollbackCause;
        });
      throw cause;
    } finally {
      client.release(broken);
    }
  }

  /**
   * Runs one statement in a workspace in a single round trip. The statement takes the workspace id as `$1` and reads
   * `entered`, which makes the setting before any row is touched: `insert … select … from entered, unnest(…)`.
   */
  async inWorkspaceOnce<Row extends pg.QueryResultRow>(
    workspaceId: string,
    name: string,
    text: string,
    values: unknown[],
  ): Promise<Row[]> {
    const entered = `with entered as materialized (select set_config('haycart.workspace', $1::text, true))`;
    const result = await this.pool.query<Row>({ name, text: `${entered} ${text}`, values: [workspaceId, ...values] });
    return result.rows;
  }

  /** Asks one of the gates: the functions that answer before a workspace is known. */
  async gate<Row extends pg.QueryResultRow>(name: string, ...values: unknown[]): Promise<Row[]> {
    const places = values.map((_, index) => `$${index + 1}`).join(', ');
    return (await this.pool.query<Row>({ name: `gate_${name}`, text: `select * from gate_${name}(${places})`, values }))
      .rows;
  }

  /** Ends the connections, after everything that uses them. */
  async onApplicationShutdown(): Promise<void> {
    await this.pool.end();
  }
}

/** Begins a transaction in a workspace, in one round trip: that takes plain text, so only an id gets in. */
function enter(begin: string, workspaceId: string, plans: PlanCacheMode): string {
  if (!isId(workspaceId)) throw new Error('A workspace is named by its id.');
  return `${begin}; select set_config('haycart.workspace', '${workspaceId}', true), set_config('plan_cache_mode', '${plans}', true)`;
}

async function named<Row extends pg.QueryResultRow>(
  client: pg.PoolClient,
  name: string,
  text: string,
  values: unknown[] = [],
): Promise<Row[]> {
  return (await client.query<Row>({ name, text, values })).rows;
}
