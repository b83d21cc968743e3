import type { OriginOf, RecordsDiff } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';

const MOST_CHANGES = 2_000;

/** Where each value of some records came from last: the key of an intake, or `typed`. */
export async function originsOf(tx: WorkspaceTx, ids: readonly string[]): Promise<OriginOf> {
  const rows = await tx.statement<{ record_id: string; cause_kind: string; intake: string | null; diff: RecordsDiff }>(
    'origins_of',
    `select c.record_id, c.cause_kind, i.key as intake, c.diff from record_change c
     left join run_attempt r on r.workspace_id = c.workspace_id and r.id = c.cause_id and c.cause_kind = 'run'
     left join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
     left join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
     where c.workspace_id = $1 and c.record_id = any($2::uuid[]) order by c.at, c.id limit ${MOST_CHANGES}`,
    [tx.workspaceId, ids],
  );
  const origins = new Map<string, string>();
  for (const { record_id: id, cause_kind: cause, intake, diff } of rows) {
    const origin = cause === 'person' ? 'typed' : intake;
    const fields = [...Object.keys(diff.created[id]?.values ?? {}), ...Object.keys(diff.changed[id]?.fields ?? {})];
    if (origin) for (const field of fields) origins.set(`${id} ${field}`, origin);
  }
  return (record, field) => origins.get(`${record} ${field}`) ?? null;
}
