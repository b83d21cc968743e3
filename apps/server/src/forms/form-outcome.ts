import type { FormOutcome } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';

/** What became of what was sent by a form in the last so many days. */
export async function formOutcome(tx: WorkspaceTx, intakeId: string, days: number): Promise<FormOutcome> {
  const [outcome] = await tx.statement<FormOutcome & Record<string, unknown>>('form_outcome', OUTCOME_SQL, [
    tx.workspaceId,
    intakeId,
    days,
  ]);
  return outcome!;
}

/** A touch of a run that was taken back does not count. */
const OUTCOME_SQL = `select count(distinct s.id)::int as written, count(distinct s.id) filter (where d.status = 'won')::int as won
  from submission s join touch t on t.workspace_id = s.workspace_id and t.visit_id = s.id
  join attempt a on a.workspace_id = t.workspace_id and a.id = t.attempt_id and a.taken_back_by is null
  left join deal d on d.workspace_id = t.workspace_id and t.record_kind = 'deal' and d.id = t.record_id
  where s.workspace_id = $1 and s.intake_id = $2 and s.received_at >= current_date - $3::int + 1`;
