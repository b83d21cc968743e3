import type { JourneyPaths } from '@haycart/api';
import { JOURNEY_BASES } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { Values } from '../platform/database/values';
import type { ListSetting } from '../records/lists/record-lists.service';
import { narrowedRecords } from './narrowing/narrowing';
import type { ReportWish } from './report-wish';
import { MADE, WON } from './sources-sql';

/** The most paths returned; the most frequent first. */
const MOST_PATHS = 10_000;
/** The most steps of a journey, counted back from its end. */
const LONGEST = 30;

/** The channel paths of deals that were made or won in a period. The same channel twice in a row is one step. */
export async function journeyPaths(
  tx: WorkspaceTx,
  { from, to, basis, window, narrowing }: ReportWish,
  setting: ListSetting,
): Promise<JourneyPaths> {
  const values = new Values([tx.workspaceId, from, to, JOURNEY_BASES.indexOf(basis)]);
  const within = window === null ? '' : `and s.at > s.made_at - make_interval(days => ${values.add(window, 'int')})`;
  const narrowed = narrowedRecords(narrowing, 's.record_id', setting, values);
  const rows = await tx.unnamed<{ steps: string[]; won: number; notWon: number }>(
    pathsSql(`${within} ${narrowed}`),
    values.all,
  );
  const told = rows.slice(0, MOST_PATHS);
  const count = (paths: typeof rows) => paths.reduce((sum, { won, notWon }) => sum + won + notWon, 0);
  return { paths: told, journeys: count(told), more: count(rows.slice(MOST_PATHS)) };
}

/** @param clauses On a step `s`, each beginning with `and`. */
function pathsSql(clauses: string): string {
  return `with step as (
      select s.record_id, s.back, t.channel, ${WON} as won from journey_step s
      join touch_source t on t.workspace_id = s.workspace_id and t.id = s.source_id
      where s.workspace_id = $1 and s.record_kind = 'deal' and $4::smallint between s.basis and s.to_basis
        and (${MADE} or ${WON}) and s.back <= ${LONGEST} ${clauses}),
    turn as (
      select *, channel is distinct from lag(channel) over (partition by record_id order by back desc) as is_turn from step),
    journey as (
      select record_id, array_agg(channel order by back desc) as steps, coalesce(bool_or(won), false) as won
      from turn where is_turn group by 1)
    select steps, count(*) filter (where won)::int as won, count(*) filter (where not won)::int as "notWon"
    from journey group by 1 order by count(*) desc, 1`;
}
