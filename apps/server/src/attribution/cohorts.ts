import { JOURNEY_BASES, type JourneyBasis, type SourceCohort } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { Values } from '../platform/database/values';
import type { ListSetting } from '../records/lists/record-lists.service';
import { narrowedRecords, type Narrowing } from './narrowing/narrowing';
import { rateParameters, worthSql } from './worth-sql';

/** The number of months of first touches, and of months counted after each. */
const MONTHS = 12;

interface Row {
  month: string;
  deals: number;
  won: number;
  lost: number;
  worth: number;
  within: number[];
  daysToWon: number | null;
}

export interface CohortsWish {
  basis: JourneyBasis;
  /** The channel of the first touch; null for any. */
  channel: string | null;
  narrowing: Narrowing;
}

/** What became of deals by the month in which somebody first came by: of the last twelve months, the earliest first. */
export async function cohorts(
  tx: WorkspaceTx,
  { basis, channel, narrowing }: CohortsWish,
  setting: ListSetting,
): Promise<SourceCohort[]> {
  const { defaultCurrency: own, rates = [] } = setting.destination;
  const values = new Values([
    tx.workspaceId,
    JOURNEY_BASES.indexOf(basis),
    channel,
    MONTHS,
    own,
    ...rateParameters(rates, own),
  ]);
  const narrowed = narrowedRecords(narrowing, 's.record_id', setting, values);
  const rows = await tx.unnamed<Row>(cohortsSql(rates.length > 0, narrowed), values.all);
  const now = new Date().toISOString().slice(0, 7);
  return rows.map(({ within, ...row }) => ({
    ...row,
    worth: Math.round(row.worth),
    daysToWon: row.daysToWon === null ? null : Math.round(row.daysToWon),
    // Months in the future are left out.
    wonWithin: Array.from(
      { length: Math.min(MONTHS, monthsBetween(row.month, now) + 1) },
      (_, months) => within.filter((after) => after <= months).length,
    ),
  }));
}

/** A deal belongs to the month of its first touch. `within` lists, for each won deal, the months from first touch to won. */
function cohortsSql(hasRates: boolean, narrowed: string): string {
  return `with first as (
      select s.record_id, s.at, s.won_at, s.amount, s.currency from journey_step s
      join touch_source t on t.workspace_id = s.workspace_id and t.id = s.source_id
      where s.workspace_id = $1 and s.record_kind = 'deal' and $2::smallint between s.basis and s.to_basis and s.back = s.of
        and s.at >= date_trunc('month', now() at time zone 'utc') at time zone 'utc' - make_interval(months => $4::int - 1)
        and ($3::text is null or t.channel = $3) ${narrowed})
    select to_char(s.at at time zone 'utc', 'YYYY-MM') as month, count(*)::int as deals, count(s.won_at)::int as won,
      count(*) filter (where d.status = 'lost')::int as lost, coalesce(sum(${worthSql('s.won_at', hasRates)}) filter (where s.won_at is not null), 0)::float8 as worth,
      coalesce(array_agg((extract(year from age(s.won_at, s.at)) * 12 + extract(month from age(s.won_at, s.at)))::int) filter (where s.won_at is not null), '{}') as within,
      (percentile_cont(0.5) within group (order by extract(epoch from s.won_at - s.at) / 86400) filter (where s.won_at is not null))::float8 as "daysToWon"
    from first s join deal d on d.workspace_id = $1 and d.id = s.record_id group by 1 order by 1`;
}

function monthsBetween(from: string, to: string): number {
  const number = (month: string) => Number(month.slice(0, 4)) * 12 + Number(month.slice(5, 7));
  return number(to) - number(from);
}
