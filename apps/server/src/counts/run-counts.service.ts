import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { foldCounts } from '../platform/database/fold-counts';
import { Values } from '../platform/database/values';
import { AfterChanges } from '../platform/jobs/after-changes';
import type { RunOutcome } from '@haycart/api';

/** Which runs are counted: of submissions that arrived at an intake, by its id, since a time, through a route. */
export interface CountedRuns {
  intakeId?: string | undefined;
  routeId?: string | undefined;
  since?: Date | undefined;
}

/** How many runs ended how, read from what is kept of it: whole days are added up, and only the first is counted. */
@Injectable()
export class RunCounts implements OnModuleInit {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AfterChanges) private readonly after: AfterChanges,
  ) {}

  onModuleInit(): void {
    this.after.follow({
      task: 'fold-run-counts',
      topic: 'runs',
      restSeconds: 30,
      work: (workspaceId) =>
        this.database.inWorkspace(workspaceId, (tx) =>
          foldCounts(tx, 'run_count', ['intake_id', 'route_id', 'outcome'], 'runs'),
        ),
    });
  }

  /** By outcome. */
  async byOutcome(tx: WorkspaceTx, which: CountedRuns): Promise<Partial<Record<RunOutcome, number>>> {
    const rows = await this.#rows<{ outcome: RunOutcome; count: number }>(tx, which, 'outcome');
    return Object.fromEntries(rows.map(({ outcome, count }) => [outcome, count]));
  }

  /** By intake and outcome. */
  byIntake(tx: WorkspaceTx): Promise<{ intake_id: string; outcome: RunOutcome; count: number }[]> {
    return this.#rows(tx, {}, 'intake_id, outcome');
  }

  /** By route and outcome, of submissions that arrived since a time. */
  byRoute(tx: WorkspaceTx, since: Date): Promise<{ route_id: string; outcome: RunOutcome; count: number }[]> {
    return this.#rows(tx, { since }, 'route_id, outcome');
  }

  /** The day (UTC) on which the latest submission came that went through each route. */
  async lastDays(tx: WorkspaceTx): Promise<ReadonlyMap<string, string>> {
    const rows = await tx.statement<{ route_id: string; day: string }>(
      'last_run_days',
      `select route_id, max(day)::text as day from (
         select route_id, day from run_count where workspace_id = $1 group by 1, 2 having sum(runs) > 0) d group by 1`,
      [tx.workspaceId],
    );
    return new Map(rows.map(({ route_id, day }) => [route_id, day]));
  }

  /** By day (UTC) and outcome, of what arrived on the last days: today is 0. */
  byDay(tx: WorkspaceTx, days: number): Promise<{ day: number; outcome: RunOutcome; count: number }[]> {
    return tx.statement(
      'runs_by_day',
      `select (now() at time zone 'utc')::date - day as day, outcome, sum(runs)::int as count from run_count
       where workspace_id = $1 and day > (now() at time zone 'utc')::date - $2::int group by 1, 2`,
      [tx.workspaceId, days],
    );
  }

  #rows<Row extends Record<string, unknown>>(
    tx: WorkspaceTx,
    { intakeId, routeId, since }: CountedRuns,
    by: string,
  ): Promise<Row[]> {
    const values = new Values([tx.workspaceId]);
    const intake = intakeId ? ` and intake_id = ${values.add(intakeId, 'uuid')}` : '';
    const route = routeId ? ` and route_id = ${values.add(routeId, 'uuid')}` : '';
    const parts = [`select ${by}, runs from run_count where workspace_id = $1${intake}${route}`];
    if (since) {
      const from = values.add(since, 'timestamptz');
      const nextDay = `(${from} at time zone 'utc')::date + 1`;
      parts[0] += ` and day >= ${nextDay}`;
      parts.push(
        `select ${by}, 1 from submission s join run r on r.workspace_id = s.workspace_id and r.submission_id = s.id
         where s.workspace_id = $1${intake}${route} and s.received_at >= ${from} and s.received_at < (${nextDay})::timestamp at time zone 'utc'`,
      );
    }
    return tx.unnamed<Row>(
      `select ${by}, sum(runs)::int as count from (${parts.join(' union all ')}) counted group by ${by} having sum(runs) <> 0`,
      values.all,
    );
  }
}
