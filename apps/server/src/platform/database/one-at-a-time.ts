import type { WorkspaceTx } from './database';

/** Lets one transaction of a workspace at a time go on with something; the others wait until it has ended. */
export async function oneAtATime(tx: WorkspaceTx, what: string): Promise<void> {
  await tx.statement('one_at_a_time', 'select pg_advisory_xact_lock(hashtextextended($1, 0))', [
    `${tx.workspaceId} ${what}`,
  ]);
}
