import { stepsOf, type StepsWish } from './share-sql';
import { worthSql } from './worth-sql';

/** Whether a step `s` leads to what was made, and to what was won or qualified, in the period `$2` to `$3`. */
export const MADE = '(s.made_at >= $2 and s.made_at < $3)';
export const WON = '(s.won_at >= $2 and s.won_at < $3)';

/** What is asked, as SQL: parameters `$1` workspace, `$2` and `$3` the period. */
export interface SumsWish extends StepsWish {
  /** Whether there are exchange rates: without, nothing looks for any. */
  hasRates: boolean;
  /** Clauses on the record of a step, each beginning with `and`. */
  narrowed: string;
  /** Joins a step with what the first rows go by (`part.value`); blank when they go by channel. */
  split: string;
}

/** Steps of deals, by whose touches count (`$5`). */
export function ofDeals({ narrowed }: Pick<SumsWish, 'narrowed'>): string {
  return `s.workspace_id = $1 and s.record_kind = 'deal' and $4::smallint between s.basis and s.to_basis ${narrowed}`;
}

/** The value of a split as a last column, where there is one, and the columns by which rows are grouped with it. */
function bySplit({ split }: Pick<SumsWish, 'split'>, others: number): { value: string; groups: string } {
  const groups = Array.from({ length: others + (split ? 1 : 0) }, (_, index) => index + 1).join(', ');
  return { value: split ? `coalesce(part.value, '') as "splitValue",` : '', groups };
}

/** What a step counts for where it was made, and where it was won. */
export function worths({ hasRates }: Pick<SumsWish, 'hasRates'>): { made: string; won: string } {
  return { made: worthSql('s.made_at', hasRates), won: worthSql('s.won_at', hasRates) };
}

/** Counts of deals, and the days from begun to won of all won together. */
const COUNTS = `count(*) filter (where ${MADE})::int as deals, count(*) filter (where ${WON})::int as "wonDeals",
    coalesce(sum(extract(epoch from s.won_at - s.made_at) / 86400) filter (where ${WON}), 0)::float8 as "wonDays"`;

/** What is shared out, and how many amounts no rate converts: each deal stands at one last touch. */
function sharedOut(wish: Pick<SumsWish, 'hasRates'>): string {
  const { made, won } = worths(wish);
  return `coalesce(sum(${made}) filter (where s.level = 5 and ${MADE}), 0) as "ofMade",
      coalesce(sum(${won}) filter (where s.level = 5 and ${WON}), 0) as "ofWon",
      count(*) filter (where s.level = 5 and s.currency <> $5 and (${MADE} and ${made} is null or ${WON} and ${won} is null))::int as without`;
}

/** What came of each source, apart by the level at which a record counts there: parameters `$4` basis, `$5` own currency, `$6` to `$8` rates if there are any. */
export function dealsSql(wish: SumsWish): string {
  const { from, share } = stepsOf(`${ofDeals(wish)} and (${MADE} or ${WON})`, wish, wish.split);
  const { made, won } = worths(wish);
  const { value, groups } = bySplit(wish, 2);
  return `select s.source_id as source, s.level, ${value} ${COUNTS},
      coalesce(sum(${made} * ${share}) filter (where ${MADE}), 0) as value,
      coalesce(sum(${won} * ${share}) filter (where ${WON}), 0) as won, ${sharedOut(wish)}
    from ${from} group by ${groups}`;
}

/** The same in all, by currency, whatever led to it and however long ago. */
export function dealsInAllSql(wish: SumsWish): string {
  const { value, groups } = bySplit(wish, 1);
  return `select s.currency, ${value} ${COUNTS}, ${sharedOut(wish)}
    from journey_step s ${wish.split} where ${ofDeals(wish)} and s.level = 5 and (${MADE} or ${WON}) group by ${groups} order by ${groups}`;
}

const MONTH = `to_char(s.won_at at time zone 'utc', 'YYYY-MM')`;

/** What was won by month and source; parameters as of `dealsSql`. */
export function monthsSql(wish: SumsWish): string {
  const { from, share } = stepsOf(`${ofDeals(wish)} and ${WON}`, wish);
  const { won } = worths(wish);
  return `select ${MONTH} as month, s.source_id as source, sum(${won} * ${share}) as won, coalesce(sum(${won}) filter (where s.level = 5), 0) as "ofWon"
    from ${from} group by 1, 2`;
}

export function monthsInAllSql(wish: SumsWish): string {
  return `select ${MONTH} as month, coalesce(sum(${worths(wish).won}), 0) as "ofWon" from journey_step s
    where ${ofDeals(wish)} and s.level = 5 and ${WON} group by 1`;
}

/** Steps `s` of contacts made and leads qualified, by what they came by themselves. */
const OF_PEOPLE = `s.workspace_id = $1 and s.basis = 0
    and (s.record_kind = 'contact' and ${MADE} or s.record_kind = 'lead' and ${WON})`;

/** How many contacts were made, and leads qualified. */
export function peopleSql(wish: Pick<SumsWish, 'narrowed' | 'split'>): string {
  const { value, groups } = bySplit(wish, 2);
  return `select s.source_id as source, s.level, ${value} count(*) filter (where s.record_kind = 'contact')::int as contacts,
      count(*) filter (where s.record_kind = 'lead')::int as qualified
    from journey_step s ${wish.split} where ${OF_PEOPLE} ${wish.narrowed} group by ${groups}`;
}

/** Submissions `v` of the period that touched a record, by source. `narrowed` and `split` are about submissions. */
export function submissionsSql(wish: Pick<SumsWish, 'narrowed' | 'split'>): string {
  const { value, groups } = bySplit(wish, 1);
  return `select v.source_id as source, ${value} count(*)::int as submissions from visit v ${wish.split}
    where v.workspace_id = $1 and v.at >= $2 and v.at < $3 and not v.earlier ${wish.narrowed} group by ${groups}`;
}

/** Views of forms by where they came from. What was counted before channels were is by the source alone. */
export const FORM_VIEWS_SQL = `select channel, source, campaign, sum(count)::int as views from form_count
  where workspace_id = $1 and did = 'view' and day >= ($2::timestamptz at time zone 'utc')::date and day < ($3::timestamptz at time zone 'utc')::date
  group by 1, 2, 3`;

export const SOURCES_SQL = `select id, channel, source, coalesce(campaign, '') as campaign, coalesce(page, '') as page
  from touch_source where workspace_id = $1 and id = any($2::int[])`;

/** The register of campaigns, by what their links say. */
export const CAMPAIGNS_SQL = 'select key, code, name from campaign where workspace_id = $1 order by name';
