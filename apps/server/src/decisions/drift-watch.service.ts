import {
  Inject,
  Injectable,
  type OnApplicationBootstrap,
  type OnModuleDestroy,
  type OnModuleInit,
} from '@nestjs/common';
import type { Subscription } from 'rxjs';
import { Database } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { Jobs } from '../platform/jobs/jobs';
import { ProfilesService } from '../submissions/profiles.service';

const TASK = 'learn-profiles';
/** How long it waits after something was routed, so that one learning is about many submissions. */
const REST_SECONDS = 2;

/** Learns from what was routed, a moment later and by a job, so that neither accepting nor routing waits for it. */
@Injectable()
export class DriftWatch implements OnModuleInit, OnApplicationBootstrap, OnModuleDestroy {
  readonly #asked = new Map<string, number>();
  #notices: Subscription | null = null;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Jobs) private readonly jobs: Jobs,
    @Inject(Events) private readonly events: Events,
    @Inject(ProfilesService) private readonly profiles: ProfilesService,
  ) {}

  onModuleInit(): void {
    this.jobs.register(TASK, (payload) => this.learn((payload as { workspaceId: string }).workspaceId));
  }

  async onApplicationBootstrap(): Promise<void> {
    this.#notices = this.events.all.subscribe(({ workspaceId, topics }) => {
      if (topics.includes('runs')) this.#ask(workspaceId);
    });
    for (const { id } of await this.database.gate<{ id: string }>('workspaces')) this.#ask(id);
  }

  onModuleDestroy(): void {
    this.#notices?.unsubscribe();
  }

  /** Brings the profiles of a workspace up to date, and tells if that leaves something to decide. */
  async learn(workspaceId: string): Promise<void> {
    await this.database.inWorkspace(workspaceId, async (tx) => {
      if (await this.profiles.learn(tx)) await this.events.tell(tx, 'decisions');
    });
  }

  /** Asks for a learning, unless it did so a moment ago. The job itself is asked for once by all processes. */
  #ask(workspaceId: string): void {
    const now = Date.now();
    if (now - (this.#asked.get(workspaceId) ?? 0) < REST_SECONDS * 500) return;
    this.#asked.set(workspaceId, now);
    // Whoever misses a learning, as when the database is away, learns with the next.
    this.jobs.addOnce(TASK, { workspaceId }, `${TASK} ${workspaceId}`, REST_SECONDS).catch(() => {});
  }
}
