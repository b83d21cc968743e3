import { Injectable } from '@nestjs/common';
import type { GivenApproval } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';

/** What people said, by the place of the hold in its route. */
export type Approvals = Readonly<Record<number, GivenApproval>>;

/** What people said who were asked before a run writes anything. */
@Injectable()
export class ApprovalsService {
  /** What was said of some submissions, by `submission route`. */
  async of(tx: WorkspaceTx, submissions: readonly string[]): Promise<Map<string, Approvals>> {
    const given = new Map<string, Approvals>();
    if (!submissions.length) return given;
    const rows = await tx.statement<GivenApproval & { submission: string; route: string; hold: number }>(
      'approvals',
      `select submission_id as submission, route_id as route, hold, approved, note, by from approval
       where workspace_id = $1 and submission_id = any($2::uuid[])`,
      [tx.workspaceId, submissions],
    );
    for (const { submission, route, hold, ...said } of rows) {
      const key = `${submission} ${route}`;
      given.set(key, { ...given.get(key), [hold]: said });
    }
    return given;
  }

  /** Keeps what somebody said; who says something else later is heard. */
  async give(
    tx: WorkspaceTx,
    {
      submission,
      route,
      hold,
      approved,
      note,
      by,
    }: GivenApproval & { submission: string; route: string; hold: number },
  ): Promise<void> {
    await tx.statement(
      'give_approval',
      `insert into approval (workspace_id, submission_id, route_id, hold, approved, note, by, at) values ($1, $2, $3, $4, $5, $6, $7, now())
       on conflict (workspace_id, submission_id, route_id, hold) do update set approved = excluded.approved, note = excluded.note, by = excluded.by, at = excluded.at`,
      [tx.workspaceId, submission, route, hold, approved, note, by],
    );
  }
}
