import { Inject, Injectable } from '@nestjs/common';
import type { Source, Way } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import { TouchSources, type PageSource } from './touch-sources';
import { TouchWays } from './touch-ways';

/** Visits that were moved from one source to another. */
export interface MovedVisits {
  from: number;
  to: number;
  visits: string[];
}

/** Changes the sources of past visits. */
@Injectable()
export class VisitSources {
  constructor(
    @Inject(TouchSources) private readonly sources: TouchSources,
    @Inject(TouchWays) private readonly ways: TouchWays,
  ) {}

  /** Stores the ways of visits that had none. */
  async keepWays(tx: WorkspaceTx, seen: readonly { id: string; way: Way }[]): Promise<void> {
    const ids = await this.ways.idsOf(
      tx.workspaceId,
      seen.map(({ way }) => way),
    );
    await tx.statement(
      'keep_ways_of_old',
      `update visit set way_id = w.way from unnest($2::uuid[], $3::int[]) w (id, way)
       where visit.workspace_id = $1 and visit.id = w.id`,
      [tx.workspaceId, seen.map(({ id }) => id), ids],
    );
  }

  /** Moves the visits of ways from one source to another, except visits corrected by a person. */
  async moveWays(
    tx: WorkspaceTx,
    moves: readonly { way: number; from: number; after: PageSource }[],
  ): Promise<MovedVisits[]> {
    const to = await this.sources.idsOf(
      tx.workspaceId,
      moves.map(({ after }) => after),
    );
    return tx.statement<MovedVisits>(
      'move_ways',
      `with moved as (
         update visit set source_id = m.after from unnest($2::int[], $3::int[], $4::int[]) m (way, before, after)
         where visit.workspace_id = $1 and visit.way_id = m.way and visit.source_id = m.before and not visit.corrected
         returning visit.id, m.before, m.after)
       select before as "from", after as "to", array_agg(id) as visits from moved group by 1, 2`,
      [tx.workspaceId, moves.map(({ way }) => way), moves.map(({ from }) => from), to],
    );
  }

  /** Sets the source of visits and marks them as corrected. Channel rules do not change corrected visits. */
  async correct(tx: WorkspaceTx, visits: readonly string[], after: Source): Promise<MovedVisits[]> {
    const pages = await tx.statement<{ id: string; page: string | null }>(
      'pages_of_visits',
      `select v.id, s.page from visit v join touch_source s on s.workspace_id = v.workspace_id and s.id = v.source_id
       where v.workspace_id = $1 and v.id = any($2::uuid[])`,
      [tx.workspaceId, visits],
    );
    const to = await this.sources.idsOf(
      tx.workspaceId,
      pages.map(({ page }) => ({ ...after, page })),
    );
    return tx.statement<MovedVisits>(
      'correct_visits',
      `with said as (select * from unnest($2::uuid[], $3::int[]) s (id, after)),
       seen as (select id, source_id from visit where workspace_id = $1 and id = any($2::uuid[]) for update),
       moved as (
         update visit set source_id = said.after, corrected = true from seen join said on said.id = seen.id
         where visit.workspace_id = $1 and visit.id = seen.id returning visit.id, seen.source_id as before, said.after)
       select before as "from", after as "to", array_agg(id) as visits from moved group by 1, 2`,
      [tx.workspaceId, pages.map(({ id }) => id), to],
    );
  }

  /**
   * Moves visits back to their earlier source, except visits that were moved again since. Returns the number moved.
   *
   * @param corrected Whether the change was a correction by a person.
   * @param still Visits that an earlier correction set: they stay marked as corrected.
   */
  async giveBack(
    tx: WorkspaceTx,
    { from, to, visits }: MovedVisits,
    corrected: boolean,
    still: readonly string[],
  ): Promise<number> {
    const rows = await tx.statement<{ id: string }>(
      'give_visits_back',
      `update visit set source_id = $3, corrected = id = any($6::uuid[])
       where workspace_id = $1 and id = any($2::uuid[]) and source_id = $4 and corrected = $5 returning id`,
      [tx.workspaceId, visits, from, to, corrected, still],
    );
    return rows.length;
  }
}
