import { stepsSql, type StepsWish } from './share-sql';
import { MADE, pickedSql, QUALIFIED } from './sources-sql';

/** More records than these are not listed at once. */
export const MOST_BEHIND = 200;

/** Whether a step came by one of the sources in a parameter; of what nothing led to, by none. */
const cameBy = (sources: number) =>
  `case when s.source_id is null then 0 = any($${sources}::int[]) else s.source_id = any($${sources}::int[]) end`;

/** The deals behind a figure, those credited most first: parameters as of `dealsSql`, and `$9` sources (0 for none). */
export function dealsBehindSql(wish: StepsWish, figure: 'made' | 'won'): string {
  const worth = `${figure}_worth`;
  return `with ${pickedSql()}, steps as (${stepsSql(wish, 8)})
    select 'deal' as kind, p.id, p.name, ${figure === 'won' ? 'closed_at' : 'created_at'} as at, ${worth}::float8 as worth,
      ${worth}::float8 * sum(coalesce(share, 1)) as credited, count(*) over ()::int as total
    from picked p left join steps s on s.record_id = p.id where is_${figure} and ${cameBy(9)}
    group by p.id, p.name, closed_at, created_at, ${worth} order by credited desc nulls last, at desc, p.id limit ${MOST_BEHIND}`;
}

/** The contacts made, and the leads qualified, behind a figure: `$4` sources (0 for none). */
export const CONTACTS_BEHIND_SQL = peopleBehindSql(
  'contact',
  `coalesce(full_name, email, phone, 'without a name')`,
  'created_at',
  MADE,
);
export const LEADS_BEHIND_SQL = peopleBehindSql('lead', 'name', 'stage_since', QUALIFIED);

function peopleBehindSql(kind: 'contact' | 'lead', name: string, at: string, when: string): string {
  return `with people as (select id, ${name} as name, ${at} as at from ${kind} where workspace_id = $1 and ${when})
    select '${kind}' as kind, p.id, p.name, p.at, count(*) over ()::int as total
    from people p left join journey_step s on s.workspace_id = $1 and s.record_id = p.id and s.basis = 0
    where ${cameBy(4)} group by p.id, p.name, p.at order by p.at desc, p.id limit ${MOST_BEHIND}`;
}

/** The submissions behind a figure, each by who is meant: `$4` sources. */
export const SUBMISSIONS_BEHIND_SQL = `select 'submission' as kind, v.id, coalesce(named.name, 'without a name') as name, v.at, count(*) over ()::int as total
  from visit v left join lateral (
    select coalesce(c.full_name, c.email, c.phone) as name from touch t join contact c on c.workspace_id = t.workspace_id and c.id = t.record_id
    where t.workspace_id = $1 and t.visit_id = v.id limit 1) named on true
  where v.workspace_id = $1 and v.at >= $2 and v.at < $3 and v.source_id = any($4::int[]) order by v.at desc, v.id limit ${MOST_BEHIND}`;
