import { stepsOf } from './share-sql';
import { MADE, ofDeals, WON, worths, type SumsWish } from './sources-sql';

/** More records than these are not listed at once. */
export const MOST_BEHIND = 200;

/**
 * The deals behind a figure, those credited most first: parameters as of `dealsSql`.
 *
 * @param sources The parameter that holds the ids of the sources. Id 0 stands for deals without any touch.
 * @param value The parameter that holds the value of what first rows go by; null for all.
 */
export function dealsBehindSql(wish: SumsWish, figure: 'made' | 'won', sources: string, value: string | null): string {
  const when = figure === 'won' ? WON : MADE;
  const worth = worths(wish)[figure];
  const ofValue = value === null ? '' : ` and coalesce(part.value, '') = ${value}`;
  const { from, share } = stepsOf(`${ofDeals(wish)} and ${when}`, wish);
  const asked = `coalesce(s.source_id, 0) = any(${sources})`;
  return `with led as (
      select s.record_id as id, sum(case when ${asked} then ${share} else 0 end) as share, bool_or(${asked}) as is_asked from ${from} group by 1)
    select 'deal' as kind, d.id, d.name, s.${figure}_at as at, ${worth} as worth, ${worth} * coalesce(l.share, 1) as credited, count(*) over ()::int as total
    from journey_step s join deal d on d.workspace_id = $1 and d.id = s.record_id left join led l on l.id = s.record_id ${wish.split}
    where ${ofDeals(wish)} and s.level = 5 and ${when} and coalesce(l.is_asked, 0 = any(${sources}))${ofValue}
    order by credited desc nulls last, at desc, d.id limit ${MOST_BEHIND}`;
}

type Narrowed = Pick<SumsWish, 'narrowed' | 'split'>;

const NAMES = { contact: `coalesce(r.full_name, r.email, r.phone, 'without a name')`, lead: 'r.name' };

/** The contacts made, or the leads qualified, behind a figure; `sources` and `value` as above. */
export function peopleBehindSql(
  { narrowed, split }: Narrowed,
  kind: 'contact' | 'lead',
  sources: string,
  value: string | null,
): string {
  const figure = kind === 'contact' ? 'made' : 'won';
  const ofValue = value === null ? '' : ` and coalesce(part.value, '') = ${value}`;
  return `select '${kind}' as kind, r.id, ${NAMES[kind]} as name, max(s.${figure}_at) as at, count(*) over ()::int as total
    from journey_step s join ${kind} r on r.workspace_id = $1 and r.id = s.record_id ${split}
    where s.workspace_id = $1 and s.record_kind = '${kind}' and s.basis = 0 and ${kind === 'lead' ? WON : MADE} ${narrowed}
      and coalesce(s.source_id, 0) = any(${sources})${ofValue}
    group by r.id, ${NAMES[kind]} order by at desc, r.id limit ${MOST_BEHIND}`;
}

/** The submissions behind a figure, each by who is meant; `sources` and `value` as above. */
export function submissionsBehindSql({ narrowed, split }: Narrowed, sources: string, value: string | null): string {
  const ofValue = value === null ? '' : ` and coalesce(part.value, '') = ${value}`;
  return `select 'submission' as kind, v.id, coalesce(named.name, 'without a name') as name, v.at, count(*) over ()::int as total
    from visit v left join lateral (
      select coalesce(c.full_name, c.email, c.phone) as name from touch t join contact c on c.workspace_id = t.workspace_id and c.id = t.record_id
      where t.workspace_id = $1 and t.visit_id = v.id limit 1) named on true ${split}
    where v.workspace_id = $1 and v.at >= $2 and v.at < $3 and not v.earlier ${narrowed} and v.source_id = any(${sources})${ofValue}
    order by v.at desc, v.id limit ${MOST_BEHIND}`;
}
