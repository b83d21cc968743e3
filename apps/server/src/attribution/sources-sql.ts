import type { StepsWish } from './share-sql';
import { stepsSql } from './share-sql';
import { worthSql } from './worth-sql';

/** What counts a record once: as a whole, by channel, by source, by campaign and by page. */
const ONCE = ['coalesce(back, 1) = 1', ...[1, 2, 4, 8].map((bit) => `coalesce(last_of, 15) & ${bit} > 0`)];

/** For each depth of the tree how many rows that meet a condition count there, as an array. */
function counted(condition: string, as: string): string {
  return `array[${ONCE.map((once) => `count(*) filter (where ${condition} and ${once})::int`).join(', ')}] as ${as}`;
}

/** Deals begun, and those won, in a period (`$2` to `$3`), by what led to them: parameters `$4` own currency, `$5` to `$7` rates, `$8` basis. */
export function dealsSql(wish: StepsWish): string {
  return `with ${pickedSql()}, steps as (${stepsSql(wish, 8)})
    select source_id as source, ${counted('is_made', 'deals')}, ${counted('is_won', '"wonDeals"')},
      coalesce(sum(made_worth::float8 * coalesce(share, 1)) filter (where is_made), 0) as value,
      coalesce(sum(won_worth::float8 * coalesce(share, 1)) filter (where is_won), 0) as won,
      coalesce(sum(made_worth) filter (where is_made and coalesce(back, 1) = 1), 0)::text as "valueTotal",
      coalesce(sum(won_worth) filter (where is_won and coalesce(back, 1) = 1), 0)::text as "wonTotal"
    from picked p left join steps s on s.record_id = p.id group by 1`;
}

/** What was won in a period, by month and source; parameters as of `dealsSql`. */
export function monthsSql(wish: StepsWish): string {
  return `with ${pickedSql()}, steps as (${stepsSql(wish, 8)})
    select to_char(closed_at at time zone 'utc', 'YYYY-MM') as month, source_id as source, sum(won_worth::float8 * coalesce(share, 1)) as won,
      coalesce(sum(won_worth) filter (where coalesce(back, 1) = 1), 0)::text as total
    from picked p left join steps s on s.record_id = p.id where is_won group by 1, 2`;
}

/** Amounts of deals that no rate converts, by currency. */
export const WITHOUT_RATE_SQL = `with ${pickedSql()}
  select currency, count(*)::int as deals from picked where (is_made and made_worth is null) or (is_won and won_worth is null) group by 1 order by 1`;

/** Whether a contact was made, and a lead qualified, in the period. */
export const MADE = 'created_at >= $2 and created_at < $3';
export const QUALIFIED = `status = 'qualified' and stage_since >= $2 and stage_since < $3`;

/** Contacts made in a period by their own touches, and leads qualified in it. */
export const PEOPLE_SQL = `with people as (
    select id, 'contact' as kind from contact where workspace_id = $1 and ${MADE}
    union all select id, 'lead' from lead where workspace_id = $1 and ${QUALIFIED})
  select s.source_id as source, ${counted(`p.kind = 'contact'`, 'contacts')}, ${counted(`p.kind = 'lead'`, 'qualified')}
  from people p left join journey_step s on s.workspace_id = $1 and s.record_id = p.id and s.basis = 0 group by 1`;

/** Submissions that touched a record, by source. */
export const SUBMISSIONS_SQL = `select source_id as source, count(*)::int as submissions from visit
  where workspace_id = $1 and at >= $2 and at < $3 group by 1`;

export const SOURCES_SQL = `select id, channel, source, coalesce(campaign, '') as campaign, coalesce(page, '') as page
  from touch_source where workspace_id = $1 and id = any($2::int[])`;

export function pickedSql(): string {
  return `picked as (select d.id, d.name, d.created_at, d.closed_at, d.value_currency as currency,
      d.created_at >= $2 and d.created_at < $3 as is_made, d.status = 'won' and d.closed_at >= $2 and d.closed_at < $3 as is_won,
      ${worthSql('d.created_at', 4, 5)} as made_worth, ${worthSql('d.closed_at', 4, 5)} as won_worth
    from deal d where d.workspace_id = $1
      and (d.created_at >= $2 and d.created_at < $3 or d.status = 'won' and d.closed_at >= $2 and d.closed_at < $3))`;
}
