import { Inject, Injectable, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import type { EventTopic } from '@haycart/api';
import type { Subscription } from 'rxjs';
import type { Config } from '../config';
import { Database } from '../database/database';
import { Events } from '../events/events';
import { CONFIG } from '../tokens';
import { Jobs } from './jobs';

/** Work on one workspace that follows what changes there, a moment later and by a job: nobody waits for it. */
export interface AfterChange {
  task: string;
  /** What changes before it. */
  topic: EventTopic;
  /** How long it waits after a change, so that one piece of work is about many. */
  restSeconds: number;
  work: (workspaceId: string, stopping: AbortSignal) => Promise<void>;
}

/**
 * Has work done after changes; and once for each workspace when the server starts, for what changed meanwhile. All
 * processes ask for it, and it is done once.
 */
@Injectable()
export class AfterChanges implements OnApplicationBootstrap, OnModuleDestroy {
  readonly #follow: AfterChange[] = [];
  /** Until when each still waits to be done, by task and workspace; null while that is being asked. */
  readonly #waits = new Map<string, number | null>();
  /** What changed again while it was being asked for. */
  readonly #changed = new Set<string>();
  #notices: Subscription | null = null;

  constructor(
    @Inject(CONFIG) private readonly config: Pick<Config, 'background'>,
    @Inject(Database) private readonly database: Database,
    @Inject(Jobs) private readonly jobs: Jobs,
    @Inject(Events) private readonly events: Events,
  ) {}

  /** Says what is to be done; before the application starts. */
  follow(change: AfterChange): void {
    this.#follow.push(change);
    this.jobs.register<{ workspaceId: string }>({
      name: change.task,
      work: ({ workspaceId }, stopping) => change.work(workspaceId, stopping),
    });
  }

  /** Has work done once more after some seconds, as when there was more than it could do yet. */
  async again(task: string, workspaceId: string, seconds: number): Promise<void> {
    await this.jobs.add(task, { workspaceId }, `${task} again ${workspaceId}`, seconds);
  }

  async onApplicationBootstrap(): Promise<void> {
    if (!this.config.background) return;
    this.#notices = this.events.all.subscribe(({ workspaceId, topics }) => {
      for (const change of this.#follow) if (topics.includes(change.topic)) this.#ask(change, workspaceId);
    });
    for (const { id } of await this.database.gate<{ id: string }>('workspaces'))
      for (const change of this.#follow) this.#ask(change, id);
  }

  onModuleDestroy(): void {
    this.#notices?.unsubscribe();
  }

  /**
   * Asks for it, unless it waits to be done, and so will see this change too. Whoever misses one, as when the database is
   * away, is served with the next.
   */
  #ask(change: AfterChange, workspaceId: string): void {
    const key = `${change.task} ${workspaceId}`;
    const until = this.#waits.get(key);
    if (until === null) this.#changed.add(key);
    else if (until === undefined || until <= Date.now()) void this.#add(change, workspaceId, key);
  }

  async #add(change: AfterChange, workspaceId: string, key: string): Promise<void> {
    const asked = Date.now();
    this.#waits.set(key, null);
    const due = await this.jobs.add(change.task, { workspaceId }, key, change.restSeconds).catch(() => 0);
    this.#waits.set(key, asked + due);
    if (this.#changed.delete(key)) this.#ask(change, workspaceId);
  }
}
