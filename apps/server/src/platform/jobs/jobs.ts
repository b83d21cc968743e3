import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import {
  parseCronItems,
  run,
  runMigrations,
  Logger as WorkerLogger,
  type Runner,
  type Task,
  type TaskList,
} from 'graphile-worker';
import pg from 'pg';
import { Database } from '../database/database';

/**
 * Everything that waits, repeats or retries, but for submissions, which are their own queue. Jobs are kept in the
 * database, so any process may do them and none is lost.
 */
@Injectable()
export class Jobs implements OnApplicationBootstrap, OnModuleDestroy {
  readonly #log = new Logger('jobs');
  readonly #tasks: TaskList = {};
  #runner: Runner | null = null;
  #pool: pg.Pool | null = null;

  constructor(@Inject(Database) private readonly database: Database) {}

  /** Says how a kind of job is done; before the application starts, so that every process can do it. */
  register(name: string, task: Task): void {
    this.#tasks[name] = task;
  }

  /** Has a job done soon, by whichever process is free. It is tried again when it fails. */
  async add(name: string, payload: object): Promise<void> {
    await this.#pool!.query('select graphile_worker.add_job($1, $2, max_attempts => 3)', [name, payload]);
  }

  /** Has a job done after a pause, once for however often it is asked for meanwhile. */
  async addOnce(name: string, payload: object, key: string, seconds: number): Promise<void> {
    await this.#pool!.query(
      `select graphile_worker.add_job($1, $2, max_attempts => 3, job_key => $3, job_key_mode => 'preserve_run_at', run_at => now() + make_interval(secs => $4))`,
      [name, payload, key, seconds],
    );
  }

  async onApplicationBootstrap(): Promise<void> {
    // The library keeps its own schema, which belongs to the role that owns the database.
    this.#pool = new pg.Pool({ connectionString: this.database.url, max: 3, application_name: 'haycart jobs' });
    this.#pool.on('error', () => {});
    this.#pool.on('connect', (client) => client.on('error', () => {}));
    const logger = new WorkerLogger(() => (level, message) => {
      if (level === 'error') this.#log.warn(message);
    });
    const removeExpired: Task = async () => {
      await this.database.gate('remove_expired');
    };
    await runMigrations({ pgPool: this.#pool, logger });
    this.#runner = await run({
      pgPool: this.#pool,
      concurrency: 2,
      noHandleSignals: true,
      logger,
      taskList: { ...this.#tasks, 'remove-expired': removeExpired },
      parsedCronItems: parseCronItems([{ task: 'remove-expired', match: '7 * * * *', identifier: 'remove-expired' }]),
    });
    // A lost connection ends the runner; the process goes on without jobs until the supervisor below restarts it.
    this.#runner.promise.catch(() => {
      this.#runner = null;
      setTimeout(
        () =>
          void this.#pool
            ?.end()
            .then(() => this.onApplicationBootstrap())
            .catch(() => {}),
        5_000,
      ).unref();
    });
  }

  async onModuleDestroy(): Promise<void> {
    const runner = this.#runner;
    this.#runner = null;
    await runner?.stop().catch(() => {});
    await this.#pool?.end().catch(() => {});
  }
}
