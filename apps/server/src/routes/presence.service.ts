import { Injectable } from '@nestjs/common';
import type { PresenceShape } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { isId } from '../platform/paging';

/** How long somebody counts as being there after their page last said so, in seconds. */
const COUNTS_SECONDS = 30;

/** Who has which route’s sheet open, so that two people on one draft know of each other. */
@Injectable()
export class PresenceService {
  /** Notes that a person has the sheet open, and answers who else has. */
  async here(tx: WorkspaceTx, routeId: string, personId: string): Promise<PresenceShape> {
    const rows = isId(routeId)
      ? await tx.statement(
          'is_here',
          `insert into route_presence (workspace_id, route_id, person_id, at) select r.workspace_id, r.id, $3, now() from route r where r.workspace_id = $1 and r.id = $2
           on conflict (workspace_id, route_id, person_id) do update set at = excluded.at returning at`,
          [tx.workspaceId, routeId, personId],
        )
      : [];
    if (!rows.length) throw new ProblemError('not-found', 'There is no such route.');
    const others = await tx.statement<{ name: string }>(
      'others_here',
      `select p.name from route_presence h join person p on p.workspace_id = h.workspace_id and p.id = h.person_id
       where h.workspace_id = $1 and h.route_id = $2 and h.person_id <> $3 and h.at > now() - make_interval(secs => $4) order by p.name`,
      [tx.workspaceId, routeId, personId, COUNTS_SECONDS],
    );
    return { others: others.map(({ name }) => name) };
  }

  async gone(tx: WorkspaceTx, routeId: string, personId: string): Promise<void> {
    const known = isId(routeId)
      ? await tx.statement(
          'is_gone',
          `with gone as (delete from route_presence where workspace_id = $1 and route_id = $2 and person_id = $3)
           select 1 from route where workspace_id = $1 and id = $2`,
          [tx.workspaceId, routeId, personId],
        )
      : [];
    if (!known.length) throw new ProblemError('not-found', 'There is no such route.');
  }
}
