import type { WorkspaceTx } from '../platform/database/database';

/** While so many submissions wait, routing them comes before what nobody waits for. */
const MANY = 100;
/** How long to leave it then, in seconds. */
export const WHILE_MANY_WAIT = 10;

/** Whether many submissions wait to be routed. */
export async function manyWait(tx: WorkspaceTx): Promise<boolean> {
  const [row] = await tx.statement<{ waiting: number }>(
    'many_waiting',
    `select count(*)::int as waiting from (select 1 from submission where workspace_id = $1 and state = 'waiting' and due_at <= now() limit ${MANY}) w`,
    [tx.workspaceId],
  );
  return row!.waiting >= MANY;
}
