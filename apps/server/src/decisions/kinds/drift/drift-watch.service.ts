import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { Database } from '../../../platform/database/database';
import { Events } from '../../../platform/events/events';
import { AfterChanges } from '../../../platform/jobs/after-changes';
import { ProfilesService } from '../../../submissions/profiles.service';

/** Learns from what was routed, a moment later, so that neither accepting nor routing waits for it. */
@Injectable()
export class DriftWatch implements OnModuleInit {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AfterChanges) private readonly after: AfterChanges,
    @Inject(Events) private readonly events: Events,
    @Inject(ProfilesService) private readonly profiles: ProfilesService,
  ) {}

  onModuleInit(): void {
    this.after.follow({
      task: 'learn-profiles',
      topic: 'runs',
      restSeconds: 2,
      work: (workspaceId) => this.learn(workspaceId),
    });
  }

  /** Brings the profiles of a workspace up to date, and tells if that leaves something to decide. */
  async learn(workspaceId: string): Promise<void> {
    await this.database.inWorkspace(workspaceId, async (tx) => {
      if (await this.profiles.learn(tx)) await this.events.tell(tx, 'decisions');
    });
  }
}
