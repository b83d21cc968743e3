import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { foldCounts } from '../../platform/database/fold-counts';
import { AfterChanges } from '../../platform/jobs/after-changes';
import { firstUnread, UNREAD } from '../search/unread';

/** What arrived: as it was counted when it was read, and what was not read yet. */
const ARRIVALS = `select intake_id, day, arrivals from arrival_count where workspace_id = $1
  union all select s.intake_id, (s.received_at at time zone 'utc')::date, 1 ${UNREAD}`;

/** How many submissions arrived at each intake, read from what is kept of it. */
@Injectable()
export class ArrivalCounts implements OnModuleInit {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AfterChanges) private readonly after: AfterChanges,
  ) {}

  onModuleInit(): void {
    this.after.follow({
      task: 'fold-arrival-counts',
      topic: 'submissions',
      restSeconds: 30,
      work: (workspaceId) =>
        this.database.inWorkspace(workspaceId, (tx) => foldCounts(tx, 'arrival_count', ['intake_id'], 'arrivals')),
    });
  }

  /** All that ever arrived at each intake. */
  async totals(tx: WorkspaceTx): Promise<{ intake_id: string; count: number }[]> {
    return tx.statement(
      'arrival_totals',
      `select intake_id, sum(arrivals)::int as count from (${ARRIVALS}) a group by 1`,
      [tx.workspaceId, await firstUnread(tx)],
    );
  }

  /** What arrived on each of the last days (UTC): today is 0. */
  async byDay(tx: WorkspaceTx, days: number): Promise<{ intake_id: string; day: number; count: number }[]> {
    return tx.statement(
      'arrivals_by_day',
      `select intake_id, (now() at time zone 'utc')::date - day as day, sum(arrivals)::int as count from (${ARRIVALS}) a
       where day > (now() at time zone 'utc')::date - $3::int group by 1, 2`,
      [tx.workspaceId, await firstUnread(tx), days],
    );
  }
}
