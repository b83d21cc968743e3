/** More touches than these are kept of no record: the first, and the latest. */
const MOST_STEPS = 200;

/** A touch of a run that was taken back does not count. */
const COUNTS = `not exists (select 1 from attempt a where a.workspace_id = t.workspace_id and a.id = t.attempt_id and a.taken_back_by is not null)`;

/**
 * The records whose journeys go by one of those in `$2`: themselves, and the deals of a contact, of a company, and of the
 * company of a contact.
 */
export const AFFECTED_SQL = `with given as (select unnest($2::uuid[]) as id),
  firms as (
    select id from given
    union select l.to_id from given g join record_link l on l.workspace_id = $1 and l.from_id = g.id and l.from_kind = 'contact' and l.to_kind = 'company'),
  around as (
    select id from firms
    union select l.from_id from firms f join record_link l on l.workspace_id = $1 and l.to_id = f.id and l.from_kind = 'contact')
  select id from given
  union select l.from_id from around n join record_link l on l.workspace_id = $1 and l.to_id = n.id and l.from_kind = 'deal'`;

export const FORGET_SQL = 'delete from journey_step where workspace_id = $1 and record_id = any($2::uuid[])';

/** Makes the journeys of the records in `$2`: of deals, leads and contacts. */
export const MAKE_SQL = `with about as (
    select 'deal' as kind, id, coalesce(closed_at, 'infinity') as until, created_at as made_at,
      case when status = 'won' then closed_at end as won_at, value_amount as amount, value_currency as currency
    from deal where workspace_id = $1 and id = any($2::uuid[])
    union all select 'lead', id, 'infinity', created_at, case when status = 'qualified' then stage_since end, null, null
    from lead where workspace_id = $1 and id = any($2::uuid[])
    union all select 'contact', id, 'infinity', created_at, null, null, null from contact where workspace_id = $1 and id = any($2::uuid[])),
  people as (
    select a.id, l.to_id as record from about a
    join record_link l on l.workspace_id = $1 and l.from_id = a.id and l.to_kind = 'contact' where a.kind = 'deal'),
  firms as (
    select a.id, l.to_id as record from about a
    join record_link l on l.workspace_id = $1 and l.from_id = a.id and l.to_kind = 'company' where a.kind = 'deal'
    union select p.id, l.to_id from people p
    join record_link l on l.workspace_id = $1 and l.from_id = p.record and l.from_kind = 'contact' and l.to_kind = 'company'),
  whose as (
    select id, id as record, 0 as basis from about
    union all select id, record, 1 from people
    union all select id, record, 2 from firms
    union all select f.id, l.from_id, 2 from firms f
      join record_link l on l.workspace_id = $1 and l.to_id = f.record and l.from_kind = 'contact' and l.to_kind = 'company'),
  visits as (
    select w.id, t.visit_id, min(w.basis) as nearest from whose w
    join touch t on t.workspace_id = $1 and t.record_id = w.record where ${COUNTS} group by 1, 2),
  until as (
    select a.id, s.nearest, v.id as visit_id, v.at, v.source_id from visits s join about a on a.id = s.id
    join visit v on v.workspace_id = $1 and v.id = s.visit_id and v.at <= a.until),
  sizes as (
    select id, count(*) filter (where nearest = 0) as own, count(*) filter (where nearest <= 1) as near, count(*) as far from until group by 1),
  bases as (
    select id, 0 as basis, case when near > own then 0 when far > near then 1 else 2 end as to_basis from sizes where own > 0
    union all select id, 1, case when far > near then 1 else 2 end from sizes where near > own
    union all select id, 2, 2 from sizes where far > near),
  ranked as (
    select u.*, b.basis, b.to_basis, row_number() over (partition by u.id, b.basis order by at desc, visit_id desc) as back,
      row_number() over (partition by u.id, b.basis order by at, visit_id) as forth
    from until u join bases b on b.id = u.id and u.nearest <= b.basis),
  kept as (
    select r.*, a.made_at, s.channel, s.source, coalesce(s.campaign, '') as campaign, coalesce(s.page, '') as page
    from ranked r join about a on a.id = r.id join touch_source s on s.workspace_id = $1 and s.id = r.source_id where back < ${MOST_STEPS} or forth = 1),
  flagged as (
    select *, row_number() over (partition by id, basis order by back) as nth, count(*) over (partition by id, basis) as of,
      max(at) over (partition by id, basis) as last_at,
      row_number() over (partition by id, basis, channel order by back) as c1,
      row_number() over (partition by id, basis, channel, source order by back) as c2,
      row_number() over (partition by id, basis, channel, source, campaign order by back) as c3,
      row_number() over (partition by id, basis, channel, source, campaign, page order by back) as c4 from kept),
  steps as (
    select id, basis, to_basis, nth, of,
      case when nth = 1 then 5 when c1 = 1 then 4 when c2 = 1 then 3 when c3 = 1 then 2 when c4 = 1 then 1 else 0 end as level,
      extract(epoch from last_at - at) as ago, source_id, visit_id, at from flagged
    union all select a.id, 0, case when near > 0 then 0 when far > 0 then 1 else 2 end, 1, 1, 5, 0, null, null, null
      from about a left join sizes z on z.id = a.id where coalesce(own, 0) = 0)
  insert into journey_step (workspace_id, record_kind, record_id, basis, to_basis, back, of, level, ago, source_id, visit_id, at,
    made_at, won_at, amount, currency)
  select $1::uuid, kind, id, basis, to_basis, nth, of, level, ago, source_id, visit_id, at, about.made_at, won_at, amount, currency
  from steps s join about using (id)`;

/** One step `s` in 14 bytes: bases and level in two, the source in four, seconds since 1970 in eight. */
const PACKED_STEP = `int2send((s.level * 16 + s.to_basis * 4 + s.basis)::smallint) || int4send(s.source_id) || float8send(date_part('epoch', s.at))`;

/** Packs the journeys of the records in `$2`, which were made anew, after all that were made before. */
export const PACK_SQL = `with made as (
    select s.record_id, min(s.record_kind) as record_kind, min(s.made_at) as made_at, min(s.won_at) as won_at, min(s.amount) as amount, min(s.currency) as currency,
      string_agg(${PACKED_STEP}, ''::bytea order by s.basis, s.back) filter (where s.source_id is not null) as steps
    from journey_step s where s.workspace_id = $1 and s.record_id = any($2::uuid[]) group by 1)
  insert into journey (workspace_id, record_id, nr, generation, record_kind, made_at, won_at, amount, currency, steps)
  select $1::uuid, given.id,
    coalesce(j.nr, (select coalesce(max(nr), 0) from journey where workspace_id = $1) + row_number() over (partition by j.nr is null order by given.id)),
    (select coalesce(max(generation), 0) + 1 from journey where workspace_id = $1),
    m.record_kind, m.made_at, m.won_at, m.amount, m.currency, coalesce(m.steps, '')
  from unnest($2::uuid[]) given (id) left join journey j on j.workspace_id = $1 and j.record_id = given.id left join made m on m.record_id = given.id
  on conflict (workspace_id, record_id) do update set generation = excluded.generation, record_kind = excluded.record_kind, made_at = excluded.made_at,
    won_at = excluded.won_at, amount = excluded.amount, currency = excluded.currency, steps = excluded.steps`;
