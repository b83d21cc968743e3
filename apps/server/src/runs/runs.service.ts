import { Inject, Injectable } from '@nestjs/common';
import { accountOf, type Plan } from '@haycart/core';
import type { RunOutcome, RunShape } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { isId } from '../platform/paging';
import { RecordsService } from '../records/records.service';
import type { QueuedSubmission } from '../submissions/submission-queue';
import { DestinationService } from '../workspaces/destination.service';
import { readSubmission } from './route-batch';

interface Row extends QueuedSubmission {
  run_id: string;
  route_id: string;
  route_name: string;
  version: number;
  outcome: RunOutcome;
  reason_code: string | null;
  summary: string;
  plan: Omit<Plan, 'diff'> | null;
  started_at: Date;
  finished_at: Date;
  intake_key: string;
  intake_name: string;
  edit_id: string | null;
  edit_by: string | null;
  edit_at: Date | null;
}

/** Reading runs: what happened to a submission, and why. */
@Injectable()
export class RunsService {
  constructor(
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  async one(tx: WorkspaceTx, id: string): Promise<RunShape> {
    const [row] = isId(id)
      ? await tx.statement<Row>(
          'run_one',
          `select r.id as run_id, r.route_id, t.name as route_name, r.version, r.outcome, r.reason_code, r.summary, r.plan, r.started_at, r.finished_at,
             e.id as edit_id, e.by as edit_by, e.at as edit_at, i.key as intake_key, i.name as intake_name, s.*
           from run r join route t on t.workspace_id = r.workspace_id and t.id = r.route_id
           join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
           join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
           left join record_edit e on e.workspace_id = r.workspace_id and e.id = r.taken_back_by
           where r.workspace_id = $1 and r.id = $2`,
          [tx.workspaceId, id],
        )
      : [];
    if (!row) throw new ProblemError('not-found', 'There is no such run.');
    const plan = row.plan ? { ...row.plan, diff: await this.records.diffOf(tx, id) } : null;
    const read = readSubmission(row, row.intake_key);
    const destination = await this.destinations.load(tx);
    const account =
      plan && read.ok
        ? accountOf(plan, read.submission, { destination, intake: row.intake_name })
        : [{ step: 'failed' as const, text: row.summary }];
    return {
      id: row.run_id,
      submission: row.id,
      route: { id: row.route_id, name: row.route_name },
      version: row.version,
      outcome: row.outcome,
      summary: row.summary,
      reason: row.reason_code ? { code: row.reason_code, text: row.summary } : null,
      plan,
      receivedAt: row.received_at.toISOString(),
      startedAt: row.started_at.toISOString(),
      finishedAt: row.finished_at.toISOString(),
      account,
      takenBack: row.edit_id ? { edit: row.edit_id, by: row.edit_by!, at: row.edit_at!.toISOString() } : null,
    };
  }
}
