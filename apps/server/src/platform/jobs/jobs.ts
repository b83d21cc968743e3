import { hostname } from 'node:os';
import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import { LIMITS } from '@haycart/core';
import { parseCronItems, run, Logger as WorkerLogger, type Runner, type TaskList } from 'graphile-worker';
import type pg from 'pg';
import type { Config } from '../config';
import { Database } from '../database/database';
import { isAlive } from '../is-alive';
import { CONFIG } from '../tokens';
import { jobsPool } from './jobs-pool';

/** How often a job is tried; after the last try it rests until a person asks again. */
const MOST_TRIES = LIMITS.jobTries.most;
const RESTART_MS = 2_000;
/** How often jobs that are due by now are looked for; those that are due at once are told. */
const POLL_MS = 2_000;
const BEAT_MS = 4_000;
/** After how long the holder of a job that never showed life is taken for gone. */
const SILENCE_SECONDS = 30;

/** One kind of job. */
export interface JobKind<Payload> {
  name: string;
  /** Does the work. At each safe point it calls `stopping.throwIfAborted()`; what is left is done when the server is back. */
  work: (payload: Payload, stopping: AbortSignal) => Promise<unknown>;
  /** Says where people see it that the last try failed, so that nobody waits for it. */
  givenUp?: (payload: Payload, reason: string) => Promise<void>;
}

/**
 * Everything that waits, repeats or retries, but for submissions, which are their own queue. Jobs are kept in the
 * database, so any process may do them and none is lost. What ends the runner, such as a failover, starts it again.
 */
@Injectable()
export class Jobs implements OnApplicationBootstrap, OnModuleDestroy {
  readonly #log = new Logger('jobs');
  readonly #kinds = new Map<string, JobKind<never>>();
  readonly #stopping = new AbortController();
  readonly #workers = new Set<string>();
  readonly #pool: pg.Pool;
  #runner: Runner | null = null;
  #supervised: Promise<void> = Promise.resolve();
  #beating: NodeJS.Timeout | null = null;

  constructor(
    @Inject(CONFIG) private readonly config: Pick<Config, 'background' | 'pace'>,
    @Inject(Database) private readonly database: Database,
  ) {
    this.#pool = jobsPool(database.url);
  }

  /** Aborted when the server stops. */
  get stopping(): AbortSignal {
    return this.#stopping.signal;
  }

  /** Says how a kind of job is done; before the application starts, so that every process can do it. */
  register<Payload>(kind: JobKind<Payload>): void {
    this.#kinds.set(kind.name, kind as JobKind<never>);
  }

  /**
   * Has a job done after some seconds, once for however often it is asked for meanwhile. Jobs of one kind in one
   * workspace are done one after the other. Returns in how many milliseconds it is due, which is sooner where it was
   * asked for before.
   */
  async add(name: string, payload: { workspaceId: string }, key: string, seconds = 0): Promise<number> {
    const { rows } = await this.#pool.query<{ due: number }>(
      `select (extract(epoch from j.run_at - clock_timestamp()) * 1000)::float8 as due
       from graphile_worker.add_job($1, $2, queue_name => $5, max_attempts => ${MOST_TRIES}, job_key => $3, job_key_mode => 'preserve_run_at',
         run_at => now() + make_interval(secs => $4)) j`,
      [name, payload, key, seconds * this.config.pace, `${name} ${payload.workspaceId}`],
    );
    return rows[0]!.due;
  }

  /** Has a job done that was begun before the server started, unless it is kept already: waiting, or resting. */
  async resume(name: string, payload: { workspaceId: string }, key: string): Promise<void> {
    const { rowCount } = await this.#pool.query('select 1 from graphile_worker.jobs where key = $1', [key]);
    if (!rowCount) await this.add(name, payload, key);
  }

  onApplicationBootstrap(): void {
    if (!this.config.background) return;
    this.register({ name: 'remove-expired', work: () => this.database.gate('remove_expired') });
    this.#supervised = this.#supervise();
    this.#beating = setInterval(() => void this.#beat(), BEAT_MS);
  }

  /** Interrupts jobs at their next safe point; those that take longer are done again by another process. */
  async onModuleDestroy(): Promise<void> {
    this.#stopping.abort();
    if (this.#beating) clearInterval(this.#beating);
    const runner = this.#runner;
    const ended = await Promise.race([
      (async () => {
        await runner?.stop().catch(() => {});
        await this.#supervised;
        return true;
      })(),
      pause(LIMITS.stopJobs.most * 1_000).then(() => false),
    ]);
    // A job that did not end holds its lock: by its worker's row others see that this process is gone, and free it.
    if (ended) await this.#forget();
    await Promise.race([this.#pool.end().catch(() => {}), pause(1_000)]);
  }

  async #supervise(): Promise<void> {
    while (!this.stopping.aborted) {
      try {
        await this.#sweep();
        await this.#run();
      } catch (cause) {
        this.#log.warn(
          `Jobs stopped and start again soon: ${(cause as { code?: string }).code ?? (cause as Error).name}.`,
        );
      }
      this.#runner = null;
      if (!this.stopping.aborted) await pause(RESTART_MS, this.stopping);
    }
  }

  async #run(): Promise<void> {
    const logger = new WorkerLogger(() => (level, message) => {
      if (level === 'error' && !this.stopping.aborted) this.#log.warn(message.split(' ').slice(0, 6).join(' '));
    });
    const runner = await run({
      pgPool: this.#pool,
      concurrency: 2,
      pollInterval: POLL_MS * this.config.pace,
      noHandleSignals: true,
      gracefulShutdownAbortTimeout: LIMITS.stopJobs.most * 1_000,
      logger,
      taskList: this.#tasks(),
      parsedCronItems: parseCronItems([{ task: 'remove-expired', match: '7 * * * *', identifier: 'remove-expired' }]),
    });
    runner.events.on('worker:create', ({ worker }) => this.#workers.add(worker.workerId));
    this.#runner = runner;
    if (this.stopping.aborted) await runner.stop();
    await runner.promise;
  }

  #tasks(): TaskList {
    const tasks: TaskList = {};
    for (const { name, work } of this.#kinds.values())
      tasks[name] = async (payload, { job }) => {
        this.#workers.add(job.locked_by!);
        await this.#beatAs(job.locked_by!);
        try {
          await work(payload as never, this.stopping);
        } catch (cause) {
          if (!this.stopping.aborted) throw cause;
          // Interrupted, not failed: it begins anew, and this try does not count.
          await this.add(name, payload as { workspaceId: string }, job.key ?? `${name} ${job.id}`);
        }
      };
    return tasks;
  }

  /** Shows that this process lives, frees what dead ones held, and tells of what was given up. */
  async #beat(): Promise<void> {
    try {
      for (const id of this.#workers) await this.#beatAs(id);
      await this.#sweep();
    } catch {
      // The database is away; the next beat tries again.
    }
  }

  async #beatAs(id: string): Promise<void> {
    await this.database.gate('job_worker_lives', id, hostname(), process.pid);
  }

  async #sweep(): Promise<void> {
    await this.#freeDead();
    await this.#giveUp();
  }

  /** Frees the jobs of processes that ended: those of this machine that are gone, and others that show no life. */
  async #freeDead(): Promise<void> {
    const known = await this.database.gate<{ id: string; host: string; pid: number; stale: boolean }>('job_workers');
    const dead = known
      .filter(
        ({ id, host, pid, stale }) =>
          !this.#workers.has(id) && (stale || (host === hostname() && (pid === process.pid || !isAlive(pid)))),
      )
      .map(({ id }) => id);
    dead.push(...(await this.#unknown([...this.#workers, ...known.map(({ id }) => id)])));
    if (!dead.length) return;
    await this.#pool.query('select graphile_worker.force_unlock_workers($1::text[])', [dead]);
    await this.database.gate('job_workers_gone', dead);
  }

  /** Returns who holds jobs since a while without ever having shown life: killed between taking one and its first sign. */
  async #unknown(known: readonly string[]): Promise<string[]> {
    const { rows } = await this.#pool.query<{ id: string }>(
      `select locked_by as id from graphile_worker._private_jobs where locked_at < now() - make_interval(secs => $2) and locked_by <> all($1::text[])
       union select locked_by from graphile_worker._private_job_queues where locked_at < now() - make_interval(secs => $2) and locked_by <> all($1::text[])`,
      [known, SILENCE_SECONDS],
    );
    return rows.map(({ id }) => id);
  }

  /** Tells of jobs whose last try failed, or ended with its process. */
  async #giveUp(): Promise<void> {
    const { rows } = await this.#pool.query<{ id: string; task: string; payload: unknown }>(
      `select j.id, t.identifier as task, j.payload from graphile_worker._private_jobs j join graphile_worker._private_tasks t on t.id = j.task_id
       where j.attempts >= j.max_attempts and j.locked_at is null and t.identifier = any($1::text[])`,
      [[...this.#kinds.values()].filter(({ givenUp }) => givenUp).map(({ name }) => name)],
    );
    for (const { id, task, payload } of rows) {
      this.#log.warn(`A job was given up: ${task}.`);
      await this.#kinds.get(task)!.givenUp!(
        payload as never,
        `It was tried ${MOST_TRIES} times, and failed each time.`,
      );
      await this.#pool.query('select graphile_worker.complete_jobs(array[$1::bigint])', [id]);
    }
  }

  async #forget(): Promise<void> {
    if (this.#workers.size) await this.database.gate('job_workers_gone', [...this.#workers]).catch(() => {});
  }
}

function pause(ms: number, until?: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    const timer = setTimeout(resolve, ms);
    timer.unref();
    until?.addEventListener('abort', () => resolve(), { once: true });
  });
}
