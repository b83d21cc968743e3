import type { AnswerSpeed, AnswerSpeedRow } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { Values } from '../platform/database/values';
import type { ListSetting } from '../records/lists/record-lists.service';
import { narrowedRecords } from './narrowing/narrowing';
import type { ReportWish } from './report-wish';

type Row = AnswerSpeedRow & Record<string, unknown>;

/** Returns how fast records given to people in a period were answered, by the channel of the record's own last touch, and by team. */
export async function answerSpeed(
  tx: WorkspaceTx,
  { from, to, narrowing }: ReportWish,
  setting: ListSetting,
): Promise<AnswerSpeed> {
  const values = new Values([tx.workspaceId, from, to]);
  const sql = speedSql(narrowedRecords(narrowing, 'a.record_id', setting, values));
  const rows = await tx.unnamed<Row & { by: 'all' | 'channel' | 'team' }>(sql, values.all);
  const { teams = {} } = setting.destination;
  const told = (by: 'channel' | 'team') =>
    rows
      .filter((row) => row.by === by)
      .map((row) => rowOf(row, by === 'team' ? (teams[row.name]?.name ?? row.name) : row.name));
  const all = rows.find(({ by }) => by === 'all');
  return {
    channels: told('channel'),
    teams: told('team').filter(({ name }) => name !== ''),
    total: all ? rowOf(all, '') : { name: '', given: 0, answered: 0, minutes: null, promised: 0, inTime: 0 },
  };
}

function rowOf({ given, answered, minutes, promised, inTime }: Row, name: string): AnswerSpeedRow {
  return { name, given, answered, minutes: minutes === null ? null : Math.round(minutes), promised, inTime };
}

/** An answer is in time when it came before it was due. One that is neither given nor due does not count as promised. */
function speedSql(narrowed: string): string {
  return `with given as (
      select a.at, a.due_at, a.touched_at, coalesce(t.channel, '') as channel, coalesce(a.team, '') as team
      from assignment a
      left join journey_step s on s.workspace_id = a.workspace_id and s.record_id = a.record_id and s.basis = 0 and s.back = 1
      left join touch_source t on t.workspace_id = s.workspace_id and t.id = s.source_id
      where a.workspace_id = $1 and a.at >= $2 and a.at < $3 ${narrowed})
    select case when grouping(channel) = 0 then 'channel' when grouping(team) = 0 then 'team' else 'all' end as by,
      coalesce(channel, team, '') as name, count(*)::int as given, count(touched_at)::int as answered,
      (percentile_cont(0.5) within group (order by extract(epoch from touched_at - at) / 60) filter (where touched_at is not null))::float8 as minutes,
      count(*) filter (where due_at is not null and (due_at <= now() or touched_at is not null))::int as promised,
      count(*) filter (where touched_at <= due_at)::int as "inTime"
    from given group by grouping sets ((channel), (team), ()) order by given desc, name`;
}
