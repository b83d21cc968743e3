import { Injectable } from '@nestjs/common';
import { USUAL_LINK_RULES, type LinkRules } from '@haycart/core';
import { eq } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { linkRules } from './tables';

/** How the parameters of links are written. */
@Injectable()
export class LinkRulesService {
  async rules(tx: WorkspaceTx): Promise<LinkRules> {
    const [row] = await tx.db
      .select({ rules: linkRules.rules })
      .from(linkRules)
      .where(eq(linkRules.workspaceId, tx.workspaceId));
    return row?.rules ?? USUAL_LINK_RULES;
  }

  async save(tx: WorkspaceTx, rules: LinkRules): Promise<LinkRules> {
    await tx.db
      .insert(linkRules)
      .values({ workspaceId: tx.workspaceId, rules })
      .onConflictDoUpdate({ target: [linkRules.workspaceId], set: { rules } });
    return rules;
  }
}
