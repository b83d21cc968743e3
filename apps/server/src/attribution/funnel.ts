import { JOURNEY_BASES, type FunnelRow, type SourceFunnel } from '@haycart/api';
import type { Pipeline } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import { Values } from '../platform/database/values';
import type { ListSetting } from '../records/lists/record-lists.service';
import { furthestSql, lostAt, openStages, reached, type DealStatus } from './narrowing/furthest-stage';
import { narrowedRecords } from './narrowing/narrowing';
import type { ReportWish } from './report-wish';
import { MADE, OF_DEALS } from './sources-sql';

/** Deals of one source that went equally far. */
interface Group extends Record<string, unknown> {
  /** Null for all sources together. */
  channel: string | null;
  source: string | null;
  status: DealStatus;
  /** The furthest open stage that they were in, counted from 1; 0: in none. */
  furthest: number;
  deals: number;
}

/** Returns how far the deals begun in a period came in a pipeline, by channel and source. A deal counts once in each channel and source of its journey. */
export async function funnel(
  tx: WorkspaceTx,
  wish: ReportWish,
  pipeline: Pipeline,
  setting: ListSetting,
): Promise<SourceFunnel> {
  const open = pipeline.stages.filter(({ state }) => state === 'open');
  const { from, to, basis, window, narrowing } = wish;
  const values = new Values([tx.workspaceId, from, to, JOURNEY_BASES.indexOf(basis)]);
  const sql = funnelSql({
    narrowed: narrowedRecords(narrowing, 's.record_id', setting, values),
    within: window === null ? '' : `and s.at >= s.made_at - make_interval(days => ${values.add(window, 'int')})`,
    pipeline: values.add(pipeline.key, 'text'),
    stages: values.add(openStages(pipeline), 'text[]'),
  });
  const groups = await tx.unnamed<Group>(sql, values.all);
  const rows = new Map<string, Group[]>();
  for (const group of groups) {
    const key = JSON.stringify([group.channel, group.source]);
    rows.set(key, [...(rows.get(key) ?? []), group]);
  }
  const told = [...rows.values()].map((of) => rowOf(of, open.length));
  const total = told.find(({ channel }) => channel === null);
  return {
    pipeline: pipeline.key,
    stages: open.map(({ key, name }) => ({ key, name })),
    rows: told.filter(({ channel }) => channel !== null).sort(mostFirst),
    total: total ?? rowOf([], open.length),
  };
}

/** Counts deals by status and furthest stage: for each channel (`source` null), for each of its sources, and for all. */
function funnelSql({
  narrowed,
  within,
  pipeline,
  stages,
}: Record<'narrowed' | 'within' | 'pipeline' | 'stages', string>) {
  return `with begun as (
      select d.id, d.status, ${furthestSql(stages)} as furthest
      from journey_step s join deal d on d.workspace_id = $1 and d.id = s.record_id
      where ${OF_DEALS} ${narrowed} and s.level = 5 and ${MADE} and d.pipeline = ${pipeline}),
    led as (select distinct s.record_id as id, t.channel, t.source from journey_step s
      join touch_source t on t.workspace_id = s.workspace_id and t.id = s.source_id where ${OF_DEALS} ${narrowed} and ${MADE} ${within}),
    placed as (select b.*, coalesce(l.channel, '') as channel, coalesce(l.source, '') as source from begun b left join led l on l.id = b.id),
    channels as (select distinct id, status, furthest, channel from placed)
    select null as channel, null as source, status, furthest, count(*)::int as deals from begun group by 3, 4
    union all select channel, null, status, furthest, count(*)::int from channels group by 1, 3, 4
    union all select channel, source, status, furthest, count(*)::int from placed group by 1, 2, 3, 4`;
}

function rowOf(groups: readonly Group[], stages: number): FunnelRow {
  const count = (isMeant: (group: Group) => boolean) =>
    groups.reduce((sum, group) => sum + (isMeant(group) ? group.deals : 0), 0);
  const of = (status: Group['status']) => count((group) => group.status === status);
  const each = (isMeant: (group: Group, nth: number) => boolean) =>
    Array.from({ length: stages }, (_, index) => count((group) => isMeant(group, index + 1)));
  return {
    channel: groups[0]?.channel ?? null,
    source: groups[0]?.source ?? null,
    deals: count(() => true),
    won: of('won'),
    lost: of('lost'),
    open: of('open'),
    // A stage that was skipped counts as reached.
    reached: each(reached),
    lostAt: each(lostAt),
  };
}

function mostFirst(one: FunnelRow, other: FunnelRow): number {
  return other.deals - one.deals || other.won - one.won || nameOf(one).localeCompare(nameOf(other));
}

function nameOf({ channel, source }: FunnelRow): string {
  return `${channel} ${source}`;
}
