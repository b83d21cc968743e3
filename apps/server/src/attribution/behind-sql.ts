import { MADE, WON, type RecordsWish } from './sources-sql';

/** More records than these are not listed at once. */
export const MOST_BEHIND = 200;

/** Deals by their numbers in the columns (`$2`), in the order of these. */
export const DEALS_BEHIND_SQL = `select j.nr, 'deal' as kind, d.id, d.name, d.created_at as "madeAt", d.closed_at as "wonAt"
  from unnest($2::int[]) with ordinality asked (nr, place) join journey j on j.workspace_id = $1 and j.nr = asked.nr
  join deal d on d.workspace_id = $1 and d.id = j.record_id order by asked.place`;

const NAMES = { contact: `coalesce(r.full_name, r.email, r.phone, 'without a name')`, lead: 'r.name' };

/**
 * The contacts made, or the leads qualified, behind a figure.
 *
 * @param sources The parameter that holds the ids of the sources. Id 0 stands for records without any touch.
 * @param value The parameter that holds the value of what first rows go by; null for all.
 */
export function peopleBehindSql(
  { narrowed, split }: RecordsWish,
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
export function submissionsBehindSql({ narrowed, split }: RecordsWish, sources: string, value: string | null): string {
  const ofValue = value === null ? '' : ` and coalesce(part.value, '') = ${value}`;
  return `select 'submission' as kind, v.id, coalesce(named.name, 'without a name') as name, v.at, count(*) over ()::int as total
    from visit v left join lateral (
      select coalesce(c.full_name, c.email, c.phone) as name from touch t join contact c on c.workspace_id = t.workspace_id and c.id = t.record_id
      where t.workspace_id = $1 and t.visit_id = v.id limit 1) named on true ${split}
    where v.workspace_id = $1 and v.at >= $2 and v.at < $3 and not v.earlier ${narrowed} and v.source_id = any(${sources})${ofValue}
    order by v.at desc, v.id limit ${MOST_BEHIND}`;
}
