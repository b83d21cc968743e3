/** Whether a step `s` leads to what was made in the period `$2` to `$3`, and to what was won or qualified in it. */
export const MADE = '(s.made_at >= $2 and s.made_at < $3)';
export const WON = '(s.won_at >= $2 and s.won_at < $3)';

/** Steps of deals, by whose touches count (`$4`). */
export const OF_DEALS = `s.workspace_id = $1 and s.record_kind = 'deal' and $4::smallint between s.basis and s.to_basis`;

/** What is asked of contacts, leads or submissions, as SQL: parameters `$1` workspace, `$2` and `$3` the period. */
export interface RecordsWish {
  /** Clauses on the id of a record or submission, each beginning with `and`. */
  narrowed: string;
  /** Joins it with what the first rows go by (`part.value`); blank when they go by channel. */
  split: string;
}

/** Submissions `v` of the period that touched a record, by source. */
export function submissionsSql({ narrowed, split }: RecordsWish): string {
  const value = split ? `coalesce(part.value, '') as "splitValue",` : '';
  return `select v.source_id as source, ${value} count(*)::int as submissions from visit v ${split}
    where v.workspace_id = $1 and v.at >= $2 and v.at < $3 and not v.earlier ${narrowed} group by 1 ${split ? ', 2' : ''}`;
}

/** Views of forms by where they came from. What was counted before channels were is by the source alone. */
export const FORM_VIEWS_SQL = `select channel, source, campaign, sum(count)::int as views from form_count
  where workspace_id = $1 and did = 'view' and day >= ($2::timestamptz at time zone 'utc')::date and day < ($3::timestamptz at time zone 'utc')::date
  group by 1, 2, 3`;

export const SOURCES_SQL = `select id, channel, source, coalesce(campaign, '') as campaign, coalesce(page, '') as page
  from touch_source where workspace_id = $1 and id = any($2::int[])`;

/** The register of campaigns, by what their links say. */
export const CAMPAIGNS_SQL = 'select key, code, name from campaign where workspace_id = $1 order by name';
