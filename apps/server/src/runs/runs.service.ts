import { Inject, Injectable } from '@nestjs/common';
import { accountOf, type Plan } from '@haycart/core';
import type { EarlierRun, RunOutcome, RunShape } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { isId } from '../platform/paging';
import { RecordsService } from '../records/records.service';
import { SubmissionQueue, type QueuedSubmission } from '../submissions/submission-queue';
import { DestinationService } from '../workspaces/destination.service';
import { readSubmission } from './route-batch';
import { RUN_AGAIN } from './run-store';

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
    @Inject(SubmissionQueue) private readonly queue: SubmissionQueue,
    @Inject(Events) private readonly events: Events,
  ) {}

  async one(tx: WorkspaceTx, id: string): Promise<RunShape> {
    const [row] = isId(id)
      ? await tx.statement<Row>(
          'run_one',
          `select r.id as run_id, r.route_id, t.name as route_name, r.version, r.outcome, r.reason_code, r.summary, r.plan, r.started_at, r.finished_at,
             e.id as edit_id, e.by as edit_by, e.at as edit_at, i.key as intake_key, i.name as intake_name, s.*
           from any_run r join route t on t.workspace_id = r.workspace_id and t.id = r.route_id
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
      reason: row.reason_code && row.reason_code !== RUN_AGAIN ? { code: row.reason_code, text: row.summary } : null,
      plan,
      receivedAt: row.received_at.toISOString(),
      startedAt: row.started_at.toISOString(),
      finishedAt: row.finished_at.toISOString(),
      account,
      earlier: await this.#earlier(tx, row),
      takenBack: row.edit_id ? { edit: row.edit_id, by: row.edit_by!, at: row.edit_at!.toISOString() } : null,
    };
  }

  /**
   * Has the submission of a run routed again, through the route of the run. A run that was taken back is given up by it:
   * it cannot be given back any more.
   *
   * @throws ProblemError 404, and 409 for a run that has written, or that another one came after.
   */
  async runAgain(tx: WorkspaceTx, id: string): Promise<void> {
    const [row] = isId(id)
      ? await tx.statement<{ submission_id: string; route_id: string; outcome: RunOutcome }>(
          'run_to_run_again',
          'select submission_id, route_id, outcome from run where workspace_id = $1 and id = $2 for update',
          [tx.workspaceId, id],
        )
      : [];
    if (!row) {
      await this.one(tx, id);
      throw new ProblemError('conflict', 'The submission ran through this route again already. Look at the later run.');
    }
    if (row.outcome === 'written' || row.outcome === 'skipped')
      throw new ProblemError('conflict', 'Only what failed, waits or was taken back runs again.');
    if (row.outcome === 'taken-back')
      await tx.statement('wanted_again', 'update run set reason_code = $3 where workspace_id = $1 and id = $2', [
        tx.workspaceId,
        id,
        RUN_AGAIN,
      ]);
    await this.queue.runThrough(tx, [row.submission_id], row.route_id);
    await this.events.tell(tx, 'submissions', 'runs');
  }

  /** The runs of the same submission through the same route before, the latest first. */
  async #earlier(tx: WorkspaceTx, row: Row): Promise<EarlierRun[]> {
    const rows = await tx.statement<Pick<Row, 'version' | 'outcome' | 'summary' | 'finished_at'> & { id: string }>(
      'earlier_runs',
      `select id, version, outcome, summary, finished_at from earlier_run
       where workspace_id = $1 and submission_id = $2 and route_id = $3 and id < $4 order by id desc limit 50`,
      [tx.workspaceId, row.id, row.route_id, row.run_id],
    );
    return rows.map(({ finished_at: at, ...run }) => ({ ...run, finishedAt: at.toISOString() }));
  }
}
