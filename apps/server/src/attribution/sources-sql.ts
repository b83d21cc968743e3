import { stepsOf, type StepsWish } from './share-sql';
import { worthSql } from './worth-sql';

/**
 * Deals `p` begun or won in a period (`$2` to `$3`), with what they are worth in the currency `$4` by the rates `$5` to `$7`.
 * Amounts are whole minor units, which float8 holds exactly.
 */
export const PICKED = `(select d.id, d.name, d.created_at, d.closed_at, d.value_currency as currency, ${began('d')} as is_made, ${won('d')} as is_won,
    case when ${began('d')} then ${worthSql('d.created_at', 4, 5)} end::float8 as made_worth,
    case when ${won('d')} then ${worthSql('d.closed_at', 4, 5)} end::float8 as won_worth
  from deal d where d.workspace_id = $1 and (${began('d')} or ${won('d')})) p`;

function began(deal: string): string {
  return `(${deal}.created_at >= $2 and ${deal}.created_at < $3)`;
}

function won(deal: string): string {
  return `(${deal}.status = 'won' and ${deal}.closed_at >= $2 and ${deal}.closed_at < $3)`;
}

/**
 * What came of each source, apart by the level at which a record counts there; `$8` says whose touches count. `ofMade` and
 * `ofWon` are what is shared out.
 */
export function dealsSql(wish: StepsWish): string {
  const { from, share } = stepsOf(PICKED, wish, 8);
  return `select s.source_id as source, s.level, count(*) filter (where is_made)::int as deals, count(*) filter (where is_won)::int as "wonDeals",
      coalesce(sum(made_worth * ${share}), 0) as value, coalesce(sum(won_worth * ${share}), 0) as won,
      coalesce(sum(made_worth), 0) as "ofMade", coalesce(sum(won_worth), 0) as "ofWon"
    from ${from} group by 1, 2`;
}

/** What was begun and won in all, by currency, and how many amounts no rate converts. */
export const DEALS_IN_ALL_SQL = `select currency, count(*) filter (where is_made)::int as deals, count(*) filter (where is_won)::int as "wonDeals",
    coalesce(sum(made_worth), 0) as "ofMade", coalesce(sum(won_worth), 0) as "ofWon",
    count(*) filter (where is_made and made_worth is null or is_won and won_worth is null)::int as without
  from ${PICKED} group by 1 order by 1`;

const MONTH = `to_char(p.closed_at at time zone 'utc', 'YYYY-MM')`;

/** What was won by month and source; parameters as of `dealsSql`. */
export function monthsSql(wish: StepsWish): string {
  const { from, share } = stepsOf(PICKED, wish, 8);
  return `select ${MONTH} as month, s.source_id as source, sum(won_worth * ${share}) as won, coalesce(sum(won_worth) filter (where s.level = 5), 0) as "ofWon"
    from ${from} where is_won group by 1, 2`;
}

export const MONTHS_IN_ALL_SQL = `select ${MONTH} as month, coalesce(sum(won_worth), 0) as "ofWon" from ${PICKED} where is_won group by 1`;

/** Contacts made, and leads qualified, in a period. */
export const PEOPLE = `(select id, coalesce(full_name, email, phone, 'without a name') as name, created_at as at, true as is_contact
    from contact where workspace_id = $1 and created_at >= $2 and created_at < $3
  union all select id, name, stage_since, false from lead
    where workspace_id = $1 and status = 'qualified' and stage_since >= $2 and stage_since < $3) p`;

const PEOPLE_FIGURES = `count(*) filter (where is_contact)::int as contacts, count(*) filter (where not is_contact)::int as qualified`;

/** By what they came themselves, apart by the level at which they count there. */
export const PEOPLE_SQL = `select s.source_id as source, s.level, ${PEOPLE_FIGURES}
  from ${PEOPLE} join journey_step s on s.workspace_id = $1 and s.record_id = p.id and s.basis = 0 group by 1, 2`;

export const PEOPLE_IN_ALL_SQL = `select ${PEOPLE_FIGURES} from ${PEOPLE}`;

/** Submissions that touched a record, by source. */
export const SUBMISSIONS_SQL = `select source_id as source, count(*)::int as submissions from visit
  where workspace_id = $1 and at >= $2 and at < $3 group by 1`;

export const SOURCES_SQL = `select id, channel, source, coalesce(campaign, '') as campaign, coalesce(page, '') as page
  from touch_source where workspace_id = $1 and id = any($2::int[])`;
