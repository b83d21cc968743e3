import { Inject, Injectable } from '@nestjs/common';
import { USUAL_RULES, type ChannelRules } from '@haycart/core';
import { eq } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { channelRules } from './tables';

/** How a workspace tells channels apart. */
@Injectable()
export class ChannelRulesService {
  constructor(@Inject(Events) private readonly events: Events) {}

  async rules(tx: WorkspaceTx): Promise<ChannelRules> {
    const [row] = await tx.db
      .select({ rules: channelRules.rules, names: channelRules.names, apart: channelRules.apart })
      .from(channelRules)
      .where(eq(channelRules.workspaceId, tx.workspaceId));
    return row ?? USUAL_RULES;
  }

  /** The rules must have been checked. */
  async save(tx: WorkspaceTx, { rules, names, apart = [] }: ChannelRules): Promise<void> {
    const row = { rules, names, apart, changedAt: new Date() };
    await tx.db
      .insert(channelRules)
      .values({ workspaceId: tx.workspaceId, ...row })
      .onConflictDoUpdate({ target: [channelRules.workspaceId], set: row });
    await this.events.tell(tx, 'labels');
  }
}
