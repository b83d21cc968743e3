import type { AnswerSpeed, AnswerSpeedRow } from '@haycart/api';
import { setImmediate } from 'node:timers/promises';
import { workBetween, type Destination } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import { Values } from '../platform/database/values';
import type { ListSetting } from '../records/lists/record-lists.service';
import { narrowedRecords } from './narrowing/narrowing';
import type { ReportWish } from './report-wish';

type Counts = Omit<AnswerSpeedRow, 'workMinutes'> & Record<string, unknown>;

/** A record that was answered, with the person who got it. */
interface Answered extends Record<string, unknown> {
  channel: string;
  team: string;
  person: string;
  at: Date;
  touched: Date;
}

const MINUTE = 60_000;
/** The number of answers worked out before other requests have their turn. */
const AT_ONCE = 2_000;
/** More answers than these are not looked at for the time at work: the latest are. */
const MOST_ANSWERS = 50_000;

/** Returns how fast records given to people in a period were answered, by the channel of the record's own last touch, and by team. */
export async function answerSpeed(
  tx: WorkspaceTx,
  { from, to, narrowing }: ReportWish,
  setting: ListSetting,
): Promise<AnswerSpeed> {
  const values = new Values([tx.workspaceId, from, to]);
  const given = givenSql(narrowedRecords(narrowing, 'a.record_id', setting, values));
  const counts = await tx.unnamed<Counts & { by: 'all' | 'channel' | 'team' }>(countsSql(given), values.all);
  const atWork = await timesAtWork(await tx.unnamed<Answered>(answeredSql(given), values.all), setting.destination);
  const { teams = {} } = setting.destination;
  const told = (by: 'channel' | 'team') =>
    counts
      .filter((row) => row.by === by)
      .map((row) =>
        rowOf(row, by === 'team' ? (teams[row.name]?.name ?? row.name) : row.name, atWork.get(`${by} ${row.name}`)),
      );
  const all = counts.find(({ by }) => by === 'all');
  const none = { name: '', given: 0, answered: 0, minutes: null, workMinutes: null, promised: 0, inTime: 0 };
  return {
    channels: told('channel'),
    teams: told('team').filter(({ name }) => name !== ''),
    total: all ? rowOf(all, '', atWork.get('all ')) : none,
  };
}

function rowOf(
  { given, answered, minutes, promised, inTime }: Counts,
  name: string,
  times: number[] = [],
): AnswerSpeedRow {
  return {
    name,
    given,
    answered,
    minutes: minutes === null ? null : Math.round(minutes),
    workMinutes: times.length ? Math.round(median(times) / MINUTE) : null,
    promised,
    inTime,
  };
}

/** The working time until each answer, in milliseconds, by channel, by team, and of all. */
async function timesAtWork(
  answered: readonly Answered[],
  { people = {} }: Pick<Destination, 'people'>,
): Promise<Map<string, number[]>> {
  const times = new Map<string, number[]>();
  for (const [nth, { channel, team, person, at, touched }] of answered.entries()) {
    if (nth % AT_ONCE === AT_ONCE - 1) await setImmediate();
    const worked = workBetween(at.toISOString(), touched.toISOString(), people[person]);
    for (const key of [`channel ${channel}`, `team ${team}`, 'all ']) {
      const known = times.get(key);
      if (known) known.push(worked);
      else times.set(key, [worked]);
    }
  }
  return times;
}

function median(times: readonly number[]): number {
  const sorted = times.toSorted((one, other) => one - other);
  const middle = sorted.length >> 1;
  return sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}

/** What was given to somebody in the period. */
function givenSql(narrowed: string): string {
  return `select a.at, a.due_at, a.touched_at, a.person, coalesce(t.channel, '') as channel, coalesce(a.team, '') as team
    from assignment a
    left join journey_step s on s.workspace_id = a.workspace_id and s.record_id = a.record_id and s.basis = 0 and s.back = 1
    left join touch_source t on t.workspace_id = s.workspace_id and t.id = s.source_id
    where a.workspace_id = $1 and a.at >= $2 and a.at < $3 ${narrowed}`;
}

function answeredSql(given: string): string {
  return `select channel, team, person, at, touched_at as touched from (${given}) g where touched_at is not null order by at desc limit ${MOST_ANSWERS}`;
}

/** An answer is in time when it came before it was due. One that is neither given nor due does not count as promised. */
function countsSql(given: string): string {
  return `with given as (${given})
    select case when grouping(channel) = 0 then 'channel' when grouping(team) = 0 then 'team' else 'all' end as by,
      coalesce(channel, team, '') as name, count(*)::int as given, count(touched_at)::int as answered,
      (percentile_cont(0.5) within group (order by extract(epoch from touched_at - at) / 60) filter (where touched_at is not null))::float8 as minutes,
      count(*) filter (where due_at is not null and (due_at <= now() or touched_at is not null))::int as promised,
      count(*) filter (where touched_at <= due_at)::int as "inTime"
    from given group by grouping sets ((channel), (team), ()) order by given desc, name`;
}
