import { Inject, Injectable } from '@nestjs/common';
import { accountOf, holdKindOf, type Plan, type ReasonCode } from '@haycart/core';
import type { AttemptLine, RunOutcome, RunShape } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { isId } from '../platform/paging';
import { RecordsService } from '../records/records.service';
import { SubmissionQueue, type QueuedSubmission } from '../submissions/submission-queue';
import { DestinationService } from '../destination/destination.service';
import { readSubmission } from './route-batch';
import { RUN_AGAIN } from './run-store';

interface Row extends QueuedSubmission {
  run_id: string;
  attempt_id: string;
  route_id: string;
  route_name: string;
  version: number;
  outcome: RunOutcome;
  reason_code: ReasonCode | typeof RUN_AGAIN | null;
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

/** How many attempts a run tells. */
const TOLD = 100;
/** What is told of an attempt: the latest stands as its run does, and one before it as it ended, unless it was taken back. */
const OUTCOME = `case when a.id = r.attempt_id then r.outcome when a.taken_back_by is not null then 'taken-back' else a.outcome end`;
const NOW = {
  outcome: `${OUTCOME} as outcome`,
  reason: 'case when a.id = r.attempt_id then r.reason_code else a.reason_code end as reason_code',
  summary: 'case when a.id = r.attempt_id then r.summary else a.summary end as summary',
  started: 'case when a.id = r.attempt_id then r.started_at else a.started_at end as started_at',
  finished: 'case when a.id = r.attempt_id then r.finished_at else a.finished_at end as finished_at',
};

/** Reading runs: what happened to a submission, and why. */
@Injectable()
export class RunsService {
  constructor(
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(SubmissionQueue) private readonly queue: SubmissionQueue,
    @Inject(Events) private readonly events: Events,
  ) {}

  /** A run with the account of one of its attempts. @throws ProblemError 404 when there is no such run or attempt. */
  async one(tx: WorkspaceTx, id: string, attempt: string | null = null): Promise<RunShape> {
    const [row] =
      isId(id) && (attempt === null || isId(attempt))
        ? await tx.statement<Row>(
            'run_one',
            `select r.id as run_id, a.id as attempt_id, r.route_id, t.name as route_name, a.version, ${NOW.outcome}, ${NOW.reason}, ${NOW.summary}, a.plan, ${NOW.started}, ${NOW.finished},
               e.id as edit_id, e.by as edit_by, e.at as edit_at, i.key as intake_key, i.name as intake_name, s.*
             from run r join attempt a on a.workspace_id = r.workspace_id and a.id = coalesce($3, r.attempt_id) and a.run_id = r.id
             join route t on t.workspace_id = r.workspace_id and t.id = r.route_id
             join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
             join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
             left join record_edit e on e.workspace_id = a.workspace_id and e.id = a.taken_back_by
             where r.workspace_id = $1 and r.id = $2`,
            [tx.workspaceId, id, attempt],
          )
        : [];
    if (!row) throw new ProblemError('not-found', 'There is no such run.');
    const plan = row.plan ? { ...row.plan, diff: await this.records.diffOf(tx, row.attempt_id) } : null;
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
      reason: reasonOf(row),
      plan,
      receivedAt: row.received_at.toISOString(),
      startedAt: row.started_at.toISOString(),
      finishedAt: row.finished_at.toISOString(),
      account,
      attempt: row.attempt_id,
      attempts: await this.#attempts(tx, row.run_id),
      takenBack: row.edit_id ? { edit: row.edit_id, by: row.edit_by!, at: row.edit_at!.toISOString() } : null,
    };
  }

  /**
   * Has the submission of a run routed again, through the route of the run. What was taken back is given up by it: it
   * cannot be given back any more.
   *
   * @throws ProblemError 404, and 409 for a run that has written or was left out.
   */
  async runAgain(tx: WorkspaceTx, id: string): Promise<void> {
    const [row] = isId(id)
      ? await tx.statement<{ submission_id: string; route_id: string; outcome: RunOutcome }>(
          'run_to_run_again',
          'select submission_id, route_id, outcome from run where workspace_id = $1 and id = $2 for update',
          [tx.workspaceId, id],
        )
      : [];
    if (!row) throw new ProblemError('not-found', 'There is no such run.');
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

  async #attempts(tx: WorkspaceTx, run: string): Promise<AttemptLine[]> {
    const rows = await tx.statement<Omit<AttemptLine, 'finishedAt'> & { finished_at: Date }>(
      'attempts_of_run',
      `select a.id, a.why, a.version, case when e.taken_back_at is null then ${OUTCOME} else 'taken-back' end as outcome, ${NOW.summary}, ${NOW.finished}, e.by
       from attempt a join run r on r.workspace_id = a.workspace_id and r.id = a.run_id
       left join record_edit e on e.workspace_id = a.workspace_id and e.id = a.edit_id
       where a.workspace_id = $1 and (a.id = $2 or (a.run_id = $2 and a.id <> a.run_id)) order by a.id desc limit ${TOLD}`,
      [tx.workspaceId, run],
    );
    return rows.map(({ finished_at: at, ...line }) => ({ ...line, finishedAt: at.toISOString() }));
  }
}

function reasonOf({ reason_code: code, summary }: Row): RunShape['reason'] {
  return code && code !== RUN_AGAIN ? { code, text: summary, hold: holdKindOf(code) } : null;
}
