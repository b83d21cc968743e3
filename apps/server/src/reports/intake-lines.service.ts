import { Inject, Injectable } from '@nestjs/common';
import { LIMITS } from '@haycart/core';
import type { IntakeLine } from '@haycart/api';
import { RunCounts } from '../counts/run-counts.service';
import { IntakesService } from '../intakes/intakes.service';
import type { WorkspaceTx } from '../platform/database/database';
import { ArrivalCounts } from '../submissions/counts/arrival-counts.service';

/** What the list of intakes shows. */
@Injectable()
export class IntakeLinesService {
  constructor(
    @Inject(IntakesService) private readonly intakes: IntakesService,
    @Inject(ArrivalCounts) private readonly arrivals: ArrivalCounts,
    @Inject(RunCounts) private readonly runs: RunCounts,
  ) {}

  /** Every intake with its month of arrivals, its routes and how it fares. */
  async all(tx: WorkspaceTx): Promise<IntakeLine[]> {
    const intakes = await this.intakes.all(tx);
    const months = await this.arrivals.byDay(tx, 30);
    const totals = await this.arrivals.totals(tx);
    const last = await tx.statement<{ intake_id: string; at: Date }>(
      'intake_last',
      `select i.id as intake_id, s.received_at as at from intake i cross join lateral (select received_at from submission s
         where s.workspace_id = i.workspace_id and s.intake_id = i.id order by s.received_at desc, s.id desc limit 1) s where i.workspace_id = $1`,
      [tx.workspaceId],
    );
    const failed = (await this.runs.byIntake(tx)).filter(({ outcome }) => outcome === 'failed');
    const routes = await tx.statement<{ key: string; id: string; name: string; state: 'live' | 'paused' }>(
      'intake_routes',
      `select f.key, r.id, r.name, r.state from route r
       left join route_version v on v.workspace_id = r.workspace_id and v.route_id = r.id and v.version = r.version
       cross join lateral jsonb_array_elements_text(coalesce(v.definition, r.draft) -> 'from') f (key)
       where r.workspace_id = $1 order by r.created_at`,
      [tx.workspaceId],
    );
    const files = await tx.statement<{ intake_id: string; bytes: string }>(
      'intake_files',
      'select intake_id, bytes from file_usage where workspace_id = $1',
      [tx.workspaceId],
    );
    const taken = new Map(files.map(({ intake_id: id, bytes }) => [id, Number(bytes)]));
    const inAll = [...taken.values()].reduce((sum, bytes) => sum + bytes, 0) / LIMITS.workspaceFiles.most;
    return intakes.map((one) => {
      const own = taken.get(one.id) ?? 0;
      const month = Array.from(
        { length: 30 },
        (_, i) => months.find((row) => row.intake_id === one.id && row.day === 29 - i)?.count ?? 0,
      );
      return {
        ...one,
        month,
        submissions: totals.find((row) => row.intake_id === one.id)?.count ?? 0,
        lastAt: last.find((row) => row.intake_id === one.id)?.at.toISOString() ?? null,
        failed: failed.find((row) => row.intake_id === one.id)?.count ?? 0,
        routes: routes.filter(({ key }) => key === one.key).map(({ id, name, state }) => ({ id, name, state })),
        filesTaken: own ? Math.max(own / LIMITS.intakeFiles.most, inAll) : 0,
      };
    });
  }
}
