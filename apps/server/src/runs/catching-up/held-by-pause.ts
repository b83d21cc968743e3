import { PAUSED } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import type { SubmissionQueue } from '../../submissions/submission-queue';

/** Why a run is skipped that waited for a paused route and was left out when that was resumed. */
export const LEFT_OUT = 'left-out';

/** Routes what waits for a paused route. Answers how much there was. */
export async function routeWhatWaits(tx: WorkspaceTx, queue: SubmissionQueue, route: string): Promise<number> {
  const held = await tx.statement<{ submission_id: string }>(
    'held_by_pause',
    `select submission_id from run where workspace_id = $1 and route_id = $2 and outcome = 'held' and reason_code = $3`,
    [tx.workspaceId, route, PAUSED],
  );
  return queue.runThrough(
    tx,
    held.map((row) => row.submission_id),
    route,
  );
}

/** Leaves out what waits for a paused route; it can be caught up on later. Answers how much there was. */
export async function leaveOutWhatWaits(tx: WorkspaceTx, route: string): Promise<number> {
  const rows = await tx.statement(
    'left_out_after_pause',
    `update run set outcome = 'skipped', reason_code = $4, summary = 'The route was paused when this arrived, and what waited was left out. Catching up routes it.'
     where workspace_id = $1 and route_id = $2 and outcome = 'held' and reason_code = $3 returning id`,
    [tx.workspaceId, route, PAUSED, LEFT_OUT],
  );
  return rows.length;
}
