import { Inject, Injectable } from '@nestjs/common';
import type { Way } from '@haycart/core';
import { Database } from '../../platform/database/database';
import { RememberedNumbers } from './remembered-numbers';

/** The ids of ways. */
@Injectable()
export class TouchWays {
  readonly #numbers = new RememberedNumbers<Way>(keyOf, (workspaceId, ways) => this.#keep(workspaceId, ways));

  constructor(@Inject(Database) private readonly database: Database) {}

  /** The id of each, in order. New ones are stored in a transaction of their own, as sources are. */
  idsOf(workspaceId: string, ways: readonly Way[]): Promise<number[]> {
    return this.#numbers.of(workspaceId, ways);
  }

  async #keep(workspaceId: string, ways: readonly Way[]): Promise<number[]> {
    const rows = await this.database.inWorkspaceOnce<{ id: number }>(
      workspaceId,
      'touch_ways',
      `, given as (select g.way, md5(g.way::text) as digest, n from unnest($2::jsonb[]) with ordinality g (way, n)),
       kept as (
         insert into touch_way (workspace_id, way) select $1::uuid, way from entered, given order by digest
         on conflict (workspace_id, digest) do update set way = excluded.way returning id, digest)
       select k.id from given g join kept k on k.digest = g.digest order by g.n`,
      [ways.map((way) => JSON.stringify(way))],
    );
    return rows.map(({ id }) => id);
  }
}

/** A text that is the same for the same way, whatever the order of its parts. */
function keyOf(way: Way): string {
  return JSON.stringify(Object.entries(way).sort(([a], [b]) => (a < b ? -1 : 1)));
}
