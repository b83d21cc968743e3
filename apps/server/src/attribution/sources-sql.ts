import { stepsOf, type StepsWish } from './share-sql';
import { worthSql } from './worth-sql';

/** Whether a step `s` leads to what was made, and to what was won or qualified, in the period `$2` to `$3`. */
export const MADE = '(s.made_at >= $2 and s.made_at < $3)';
export const WON = '(s.won_at >= $2 and s.won_at < $3)';

/** Steps of deals, by whose touches count (`$8`). */
export const OF_DEALS = `s.workspace_id = $1 and s.record_kind = 'deal' and $8::smallint between s.basis and s.to_basis`;

export const MADE_WORTH = worthSql('s.made_at');
export const WON_WORTH = worthSql('s.won_at');

/** What is shared out, and how many amounts no rate converts: each deal stands at one last touch. */
const SHARED_OUT = `coalesce(sum(${MADE_WORTH}) filter (where s.level = 5 and ${MADE}), 0) as "ofMade",
      coalesce(sum(${WON_WORTH}) filter (where s.level = 5 and ${WON}), 0) as "ofWon",
      count(*) filter (where s.level = 5 and s.currency <> $4 and (${MADE} and ${MADE_WORTH} is null or ${WON} and ${WON_WORTH} is null))::int as without`;

/** What came of each source, apart by the level at which a record counts there: parameters `$4` own currency, `$5` to `$7` rates, `$8` basis. */
export function dealsSql(wish: StepsWish): string {
  const { from, share } = stepsOf(`${OF_DEALS} and (${MADE} or ${WON})`, wish);
  return `select s.source_id as source, s.level, count(*) filter (where ${MADE})::int as deals, count(*) filter (where ${WON})::int as "wonDeals",
      coalesce(sum(${MADE_WORTH} * ${share}) filter (where ${MADE}), 0) as value,
      coalesce(sum(${WON_WORTH} * ${share}) filter (where ${WON}), 0) as won, ${SHARED_OUT}
    from ${from} group by 1, 2`;
}

/** The same in all, by currency, whatever led to it and however long ago. */
export const DEALS_IN_ALL_SQL = `select s.currency, count(*) filter (where ${MADE})::int as deals, count(*) filter (where ${WON})::int as "wonDeals", ${SHARED_OUT}
  from journey_step s where ${OF_DEALS} and s.level = 5 and (${MADE} or ${WON}) group by 1 order by 1`;

const MONTH = `to_char(s.won_at at time zone 'utc', 'YYYY-MM')`;
const OF_MONTH = `coalesce(sum(${WON_WORTH}) filter (where s.level = 5), 0) as "ofWon"`;

/** What was won by month and source; parameters as of `dealsSql`. */
export function monthsSql(wish: StepsWish): string {
  const { from, share } = stepsOf(`${OF_DEALS} and ${WON}`, wish);
  return `select ${MONTH} as month, s.source_id as source, sum(${WON_WORTH} * ${share}) as won, ${OF_MONTH} from ${from} group by 1, 2`;
}

export const MONTHS_IN_ALL_SQL = `select ${MONTH} as month, ${OF_MONTH} from journey_step s where ${OF_DEALS} and s.level = 5 and ${WON} group by 1`;

/** Contacts made, and leads qualified, by what they came by themselves. */
export const PEOPLE_SQL = `select s.source_id as source, s.level, count(*) filter (where s.record_kind = 'contact')::int as contacts,
    count(*) filter (where s.record_kind = 'lead')::int as qualified
  from journey_step s where s.workspace_id = $1 and s.basis = 0
    and (s.record_kind = 'contact' and ${MADE} or s.record_kind = 'lead' and ${WON}) group by 1, 2`;

/** Submissions that touched a record, by source. */
export const SUBMISSIONS_SQL = `select source_id as source, count(*)::int as submissions from visit
  where workspace_id = $1 and at >= $2 and at < $3 group by 1`;

export const SOURCES_SQL = `select id, channel, source, coalesce(campaign, '') as campaign, coalesce(page, '') as page
  from touch_source where workspace_id = $1 and id = any($2::int[])`;
