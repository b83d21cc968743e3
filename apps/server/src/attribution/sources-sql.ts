import { stepsOf, type StepsWish } from './share-sql';
import { worthSql } from './worth-sql';

/** Whether a step `s` leads to what was made, and to what was won or qualified, in the period `$2` to `$3`. */
export const MADE = '(s.made_at >= $2 and s.made_at < $3)';
export const WON = '(s.won_at >= $2 and s.won_at < $3)';

/** Steps of deals, by whose touches count (`$5`). */
export const OF_DEALS = `s.workspace_id = $1 and s.record_kind = 'deal' and $5::smallint between s.basis and s.to_basis`;

/** What is asked, and whether there are rates: without, nothing looks for any. */
export interface SumsWish extends StepsWish {
  hasRates: boolean;
}

/** What a step counts for where it was made, and where it was won. */
export function worths({ hasRates }: Pick<SumsWish, 'hasRates'>): { made: string; won: string } {
  return { made: worthSql('s.made_at', hasRates), won: worthSql('s.won_at', hasRates) };
}

/** What is shared out, and how many amounts no rate converts: each deal stands at one last touch. */
function sharedOut(wish: Pick<SumsWish, 'hasRates'>): string {
  const { made, won } = worths(wish);
  return `coalesce(sum(${made}) filter (where s.level = 5 and ${MADE}), 0) as "ofMade",
      coalesce(sum(${won}) filter (where s.level = 5 and ${WON}), 0) as "ofWon",
      count(*) filter (where s.level = 5 and s.currency <> $4 and (${MADE} and ${made} is null or ${WON} and ${won} is null))::int as without`;
}

/** What came of each source, apart by the level at which a record counts there: parameters `$4` own currency, `$5` basis, `$6` to `$8` rates if there are any. */
export function dealsSql(wish: SumsWish): string {
  const { from, share } = stepsOf(`${OF_DEALS} and (${MADE} or ${WON})`, wish);
  const { made, won } = worths(wish);
  return `select s.source_id as source, s.level, count(*) filter (where ${MADE})::int as deals, count(*) filter (where ${WON})::int as "wonDeals",
      coalesce(sum(${made} * ${share}) filter (where ${MADE}), 0) as value,
      coalesce(sum(${won} * ${share}) filter (where ${WON}), 0) as won, ${sharedOut(wish)}
    from ${from} group by 1, 2`;
}

/** The same in all, by currency, whatever led to it and however long ago. */
export function dealsInAllSql(wish: Pick<SumsWish, 'hasRates'>): string {
  return `select s.currency, count(*) filter (where ${MADE})::int as deals, count(*) filter (where ${WON})::int as "wonDeals", ${sharedOut(wish)}
    from journey_step s where ${OF_DEALS} and s.level = 5 and (${MADE} or ${WON}) group by 1 order by 1`;
}

const MONTH = `to_char(s.won_at at time zone 'utc', 'YYYY-MM')`;

/** What was won by month and source; parameters as of `dealsSql`. */
export function monthsSql(wish: SumsWish): string {
  const { from, share } = stepsOf(`${OF_DEALS} and ${WON}`, wish);
  const { won } = worths(wish);
  return `select ${MONTH} as month, s.source_id as source, sum(${won} * ${share}) as won, coalesce(sum(${won}) filter (where s.level = 5), 0) as "ofWon"
    from ${from} group by 1, 2`;
}

export function monthsInAllSql(wish: Pick<SumsWish, 'hasRates'>): string {
  return `select ${MONTH} as month, coalesce(sum(${worths(wish).won}), 0) as "ofWon" from journey_step s where ${OF_DEALS} and s.level = 5 and ${WON} group by 1`;
}

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

/** The register of campaigns, by what their links say. */
export const CAMPAIGNS_SQL = 'select key, code, name from campaign where workspace_id = $1 order by name';
