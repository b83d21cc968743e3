import type { Pipeline } from '@haycart/core';
import type { Values } from '../../platform/database/values';

export const DEAL_STATUSES = ['open', 'won', 'lost'] as const;
export type DealStatus = (typeof DEAL_STATUSES)[number];

/** Deals of a pipeline by how far they came. */
export interface CameTo {
  pipeline: Pipeline;
  /** An open stage that they reached, or, of those lost, at which they were lost; null: any. */
  stage: string | null;
  /** What became of them; null: any of it. */
  status: DealStatus | null;
}

/** The keys of the stages that a deal goes through while it is open, in their order. */
export function openStages({ stages }: Pipeline): string[] {
  return stages.filter(({ state }) => state === 'open').map(({ key }) => key);
}

/**
 * The furthest open stage that a deal `d` was in, counted from 1; 0: in none.
 *
 * @param stages The parameter that holds the keys of the open stages.
 */
export function furthestSql(stages: string): string {
  return `coalesce((
    select max(p.nth) from unnest(${stages}) with ordinality p (key, nth)
    where p.key = d.stage or exists (select 1 from stage_move m where m.workspace_id = $1 and m.record_id = d.id and m.pipeline = d.pipeline
      and p.key in (m.from_stage, m.to_stage))), 0)::int`;
}

/** Whether a deal that came so far reached a stage, counted from 1. One that was won reached all. */
export function reached({ status, furthest }: { status: DealStatus; furthest: number }, nth: number): boolean {
  return status === 'won' || furthest >= nth;
}

/** Whether a deal was lost at a stage, counted from 1. One that was in none was lost at the first. */
export function lostAt({ status, furthest }: { status: DealStatus; furthest: number }, nth: number): boolean {
  return status === 'lost' && Math.max(1, furthest) === nth;
}

/** The same as `reached` and `lostAt` as a query of the ids of deals. */
export function cameToSql({ pipeline, stage, status }: CameTo, values: Values): string {
  const stages = openStages(pipeline);
  const nth = stage === null ? 0 : stages.indexOf(stage) + 1;
  const ofStatus = status === null ? '' : `and d.status = ${values.add(status, 'text')}`;
  const furthest = furthestSql(values.add(stages, 'text[]'));
  const at = values.add(nth, 'int');
  const ofStage = status === 'lost' ? `greatest(1, ${furthest}) = ${at}` : `(d.status = 'won' or ${furthest} >= ${at})`;
  return `select d.id from deal d where d.workspace_id = $1 and d.pipeline = ${values.add(pipeline.key, 'text')} ${ofStatus}
    and (${at} = 0 or ${ofStage})`;
}
