import { stepsOf, type StepsWish } from './share-sql';
import { PEOPLE, PICKED } from './sources-sql';

/** More records than these are not listed at once. */
export const MOST_BEHIND = 200;

/** The deals behind a figure, those credited most first: parameters as of `dealsSql`, and `$9` sources, 0 among them for what nothing led to. */
export function dealsBehindSql(wish: StepsWish, figure: 'made' | 'won'): string {
  const { from, share } = stepsOf(PICKED, wish, 8);
  const worth = `${figure}_worth`;
  return `with led as (
      select p.id, sum(case when s.source_id = any($9::int[]) then ${share} else 0 end) as share, bool_or(s.source_id = any($9::int[])) as is_asked
      from ${from} where is_${figure} group by p.id)
    select 'deal' as kind, p.id, p.name, ${figure === 'won' ? 'p.closed_at' : 'p.created_at'} as at, ${worth} as worth,
      ${worth} * coalesce(l.share, 1) as credited, count(*) over ()::int as total
    from ${PICKED} left join led l on l.id = p.id where is_${figure} and coalesce(l.is_asked, 0 = any($9::int[]))
    order by credited desc nulls last, at desc, p.id limit ${MOST_BEHIND}`;
}

/** The contacts made, and the leads qualified, behind a figure: `$4` sources (0 for none). */
export const CONTACTS_BEHIND_SQL = peopleBehindSql('contact');
export const LEADS_BEHIND_SQL = peopleBehindSql('lead');

function peopleBehindSql(kind: 'contact' | 'lead'): string {
  return `select '${kind}' as kind, p.id, p.name, p.at, count(*) over ()::int as total
    from ${PEOPLE} left join lateral (
      select bool_or(s.source_id = any($4::int[])) as is_asked from journey_step s where s.workspace_id = $1 and s.record_id = p.id and s.basis = 0) l on true
    where ${kind === 'contact' ? '' : 'not '}is_contact and coalesce(l.is_asked, 0 = any($4::int[]))
    order by p.at desc, p.id limit ${MOST_BEHIND}`;
}

/** The submissions behind a figure, each by who is meant: `$4` sources. */
export const SUBMISSIONS_BEHIND_SQL = `select 'submission' as kind, v.id, coalesce(named.name, 'without a name') as name, v.at, count(*) over ()::int as total
  from visit v left join lateral (
    select coalesce(c.full_name, c.email, c.phone) as name from touch t join contact c on c.workspace_id = t.workspace_id and c.id = t.record_id
    where t.workspace_id = $1 and t.visit_id = v.id limit 1) named on true
  where v.workspace_id = $1 and v.at >= $2 and v.at < $3 and v.source_id = any($4::int[]) order by v.at desc, v.id limit ${MOST_BEHIND}`;
