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
  /** When each was asked for last, by task and workspace. */
  readonly #asked = new Map<string, number>();
  #notices: Subscription | null = null;

  constructor(
    @Inject(CONFIG) private readonly config: Pick<Config, 'background' | 'pace'>,
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
  again(task: string, workspaceId: string, seconds: number): Promise<void> {
    return this.jobs.add(task, { workspaceId }, `${task} again ${workspaceId}`, seconds);
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

  /** Asks for it, unless it did so a moment ago. Whoever misses one, as when the database is away, is served with the next. */
  #ask({ task, restSeconds }: AfterChange, workspaceId: string): void {
    const key = `${task} ${workspaceId}`;
    const now = Date.now();
    if (now - (this.#asked.get(key) ?? 0) < restSeconds * 500 * this.config.pace) return;
    this.#asked.set(key, now);
    this.jobs.add(task, { workspaceId }, key, restSeconds).catch(() => {});
  }
}
