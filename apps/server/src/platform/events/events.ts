import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import { EVENT_TOPICS, type EventTopic } from '@haycart/api';
import pg from 'pg';
import { Subject, filter, map, type Observable } from 'rxjs';
import { connectionSettings, Database, type WorkspaceTx } from '../database/database';
import { assertOwnRole } from '../database/own-role';

const CHANNEL = 'haycart';
const RECONNECT_MS = 1_000;
/** The shortest time between two tellings of what happens thousands of times a second, in milliseconds. */
const GATHER_MS = 100;

const PING_MS = 10_000;

interface Notice {
  workspaceId: string;
  topics: EventTopic[];
}

/** Tells every server process what changed, through the database: people watching, and workers that wait for work. */
@Injectable()
export class Events implements OnApplicationBootstrap, OnModuleDestroy {
  readonly #notices = new Subject<Notice>();
  readonly #log = new Logger('events');
  readonly #due = new Map<string, Set<EventTopic>>();
  #client: pg.Client | null = null;
  #timer: NodeJS.Timeout | null = null;
  #closed = false;
  #listened = false;

  constructor(@Inject(Database) private readonly database: Database) {}

  onApplicationBootstrap(): void {
    void this.#listen();
  }

  /** All notices, of every workspace; for workers. */
  get all(): Observable<Notice> {
    return this.#notices;
  }

  /** The topics that change in one workspace. */
  of(workspaceId: string): Observable<EventTopic[]> {
    return this.#notices.pipe(
      filter((notice) => notice.workspaceId === workspaceId),
      map(({ topics }) => topics),
    );
  }

  /**
   * Tells in the same transaction, so that nobody hears of what is then rolled back. This process hears it first: whoever
   * made a change finds it made.
   */
  async tell(tx: WorkspaceTx, ...topics: EventTopic[]): Promise<void> {
    await tx.statement('tell', 'select pg_notify($1, $2)', [
      CHANNEL,
      JSON.stringify({ workspaceId: tx.workspaceId, topics }),
    ]);
    tx.afterCommit(() => this.#notices.next({ workspaceId: tx.workspaceId, topics }));
  }

  /** Tells at once, or with all else when the last telling was a moment ago: for what happens thousands of times a second. */
  tellSoon(workspaceId: string, ...topics: EventTopic[]): void {
    const due = this.#due.get(workspaceId) ?? new Set();
    topics.forEach((topic) => due.add(topic));
    this.#due.set(workspaceId, due);
    if (!this.#timer) this.#flush();
  }

  async onModuleDestroy(): Promise<void> {
    this.#closed = true;
    if (this.#timer) clearTimeout(this.#timer);
    this.#notices.complete();
    await this.#client?.end().catch(() => {});
  }

  /** Tells what is due, and again after the pause if more has become due meanwhile. */
  #flush(): void {
    this.#timer = null;
    if (!this.#due.size || this.#closed) return;
    this.#timer = setTimeout(() => this.#flush(), GATHER_MS);
    const notices = [...this.#due].map(([workspaceId, topics]) => JSON.stringify({ workspaceId, topics: [...topics] }));
    this.#due.clear();
    this.database.pool
      .query({
        name: 'tell_soon',
        text: 'select pg_notify($1, n) from unnest($2::text[]) n',
        values: [CHANNEL, notices],
      })
      .catch(() => {});
  }

  /** Ends the streams of people who watch, as when the server stops. */
  endStreams(): void {
    this.#notices.complete();
  }

  async #listen(): Promise<void> {
    if (this.#closed) return;
    const client = new pg.Client({
      ...connectionSettings(this.database.url, 'haycart events'),
      query_timeout: PING_MS,
    });
    this.#client = client;
    client.on('error', () => {});
    client.once('end', () => {
      clearInterval(ping);
      setTimeout(() => void this.#listen(), RECONNECT_MS).unref();
    });
    client.on('notification', ({ payload }) => this.#notices.next(JSON.parse(payload ?? '{}') as Notice));
    // A peer that is gone without a word, as in a failover, is noticed by its silence.
    const ping = setInterval(() => void client.query('select 1').catch(() => disconnect(client)), PING_MS).unref();
    try {
      await client.connect();
      await assertOwnRole(client);
      await client.query(`listen ${CHANNEL}`);
      await this.#tellAll();
    } catch {
      this.#log.warn('The database cannot be reached; listening again soon.');
      disconnect(client);
    }
  }

  /** What happened while nobody listened is not known, so everything may have changed. */
  async #tellAll(): Promise<void> {
    if (this.#listened)
      for (const { id } of await this.database.gate<{ id: string }>('workspaces'))
        this.#notices.next({ workspaceId: id, topics: [...EVENT_TOPICS] });
    this.#listened = true;
  }
}

function disconnect(client: pg.Client): void {
  (client as unknown as { connection: { stream: { destroy(): void } } }).connection.stream.destroy();
}
