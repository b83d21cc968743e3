import { stepsOf } from './share-sql';
import { MADE, OF_DEALS, WON, worths, type SumsWish } from './sources-sql';

/** More records than these are not listed at once. */
export const MOST_BEHIND = 200;

/**
 * The deals behind a figure, those credited most first: parameters as of `dealsSql`.
 *
 * @param sources The number of the parameter that holds the ids of the sources. Id 0 stands for deals without any touch.
 */
export function dealsBehindSql(wish: SumsWish, figure: 'made' | 'won', sources: number): string {
  const when = figure === 'won' ? WON : MADE;
  const worth = worths(wish)[figure];
  const { from, share } = stepsOf(`${OF_DEALS} and ${when}`, wish);
  const asked = `coalesce(s.source_id, 0) = any($${sources}::int[])`;
  return `with led as (
      select s.record_id as id, sum(case when ${asked} then ${share} else 0 end) as share, bool_or(${asked}) as is_asked from ${from} group by 1)
    select 'deal' as kind, d.id, d.name, s.${figure}_at as at, ${worth} as worth, ${worth} * coalesce(l.share, 1) as credited, count(*) over ()::int as total
    from journey_step s join deal d on d.workspace_id = $1 and d.id = s.record_id left join led l on l.id = s.record_id
    where ${OF_DEALS} and s.level = 5 and ${when} and coalesce(l.is_asked, 0 = any($${sources}::int[]))
    order by credited desc nulls last, at desc, d.id limit ${MOST_BEHIND}`;
}

/** The contacts made, and the leads qualified, behind a figure: `$4` sources (0 for none). */
export const CONTACTS_BEHIND_SQL = peopleBehindSql(
  'contact',
  'made',
  `coalesce(r.full_name, r.email, r.phone, 'without a name')`,
);
export const LEADS_BEHIND_SQL = peopleBehindSql('lead', 'won', 'r.name');

function peopleBehindSql(kind: 'contact' | 'lead', figure: 'made' | 'won', name: string): string {
  return `select '${kind}' as kind, r.id, ${name} as name, max(s.${figure}_at) as at, count(*) over ()::int as total
    from journey_step s join ${kind} r on r.workspace_id = $1 and r.id = s.record_id
    where s.workspace_id = $1 and s.record_kind = '${kind}' and s.basis = 0 and ${figure === 'won' ? WON : MADE} and coalesce(s.source_id, 0) = any($4::int[])
    group by r.id, ${name} order by at desc, r.id limit ${MOST_BEHIND}`;
}

/** The submissions behind a figure, each by who is meant: `$4` sources. */
export const SUBMISSIONS_BEHIND_SQL = `select 'submission' as kind, v.id, coalesce(named.name, 'without a name') as name, v.at, count(*) over ()::int as total
  from visit v left join lateral (
    select coalesce(c.full_name, c.email, c.phone) as name from touch t join contact c on c.workspace_id = t.workspace_id and c.id = t.record_id
    where t.workspace_id = $1 and t.visit_id = v.id limit 1) named on true
  where v.workspace_id = $1 and v.at >= $2 and v.at < $3 and v.source_id = any($4::int[]) order by v.at desc, v.id limit ${MOST_BEHIND}`;
