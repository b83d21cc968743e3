import { Inject, Injectable } from '@nestjs/common';
import { wayOf, type Destination, type Origin, type Visit } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import { VisitSources } from '../../records/history/visit-sources.service';

const AT_ONCE = 2_000;
const BEFORE_ALL = '00000000-0000-0000-0000-000000000000';

/** Fills in the way of visits from before ways were stored, from their submissions. */
@Injectable()
export class WaysOfOld {
  constructor(@Inject(VisitSources) private readonly visits: VisitSources) {}

  /** Visits without a submission are skipped. */
  async look(tx: WorkspaceTx, { intakeSources }: Destination): Promise<void> {
    let after = BEFORE_ALL;
    for (;;) {
      const rows = await tx.statement<{ id: string; intake: string; visit: Visit; origin: Origin }>(
        'visits_of_old',
        `select v.id, i.key as intake, s.visit, s.origin from visit v
         join submission s on s.workspace_id = v.workspace_id and s.id = v.id
         join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
         where v.workspace_id = $1 and v.way_id is null and v.id > $2 order by v.id limit ${AT_ONCE}`,
        [tx.workspaceId, after],
      );
      if (!rows.length) return;
      const seen = rows.map((row) => ({ id: row.id, way: wayOf(row, intakeSources) }));
      await this.visits.keepWays(tx, seen);
      after = rows.at(-1)!.id;
    }
  }
}
