import type { FunnelRow, SourceFunnel } from '@haycart/api';
import type { Pipeline } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import type { ListSetting } from '../records/lists/record-lists.service';
import type { ReportWish } from './report-wish';
import { stepsOf } from './share-sql';
import { MADE, ofDeals, type SumsWish } from './sources-sql';
import { countingDeals } from './statement';

/** Deals of one source that went equally far. */
interface Group extends Record<string, unknown> {
  /** Null for all sources together. */
  channel: string | null;
  source: string | null;
  status: 'open' | 'won' | 'lost';
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
  const { wish: sums, values } = countingDeals(tx, wish, setting);
  const sql = funnelSql(sums, {
    pipeline: values.add(pipeline.key, 'text'),
    stages: values.add(
      open.map(({ key }) => key),
      'text[]',
    ),
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
function funnelSql(wish: SumsWish, { pipeline, stages }: { pipeline: string; stages: string }): string {
  const { from } = stepsOf(
    `${ofDeals(wish)} and ${MADE}`,
    wish,
    'join touch_source t on t.workspace_id = s.workspace_id and t.id = s.source_id',
  );
  return `with begun as (
      select d.id, d.status, coalesce((
        select max(p.nth) from unnest(${stages}) with ordinality p (key, nth)
        where p.key = d.stage or exists (select 1 from stage_move m where m.workspace_id = $1 and m.record_id = d.id and m.pipeline = d.pipeline
          and p.key in (m.from_stage, m.to_stage))), 0)::int as furthest
      from journey_step s join deal d on d.workspace_id = $1 and d.id = s.record_id
      where ${ofDeals(wish)} and s.level = 5 and ${MADE} and d.pipeline = ${pipeline}),
    led as (select distinct s.record_id as id, t.channel, t.source from ${from}),
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
    reached: each(({ status, furthest }, nth) => status === 'won' || furthest >= nth),
    lostAt: each(({ status, furthest }, nth) => status === 'lost' && Math.max(1, furthest) === nth),
  };
}

function mostFirst(one: FunnelRow, other: FunnelRow): number {
  return other.deals - one.deals || other.won - one.won || nameOf(one).localeCompare(nameOf(other));
}

function nameOf({ channel, source }: FunnelRow): string {
  return `${channel} ${source}`;
}
