/**
 * What a contact agreed to or withdrew, and what those did that became part of it. What holds comes first. Nobody agrees to more
 * by a merge: what one of them had withdrawn before counts as said at the merge, so after all that others had given. What was
 * kept by a run that is taken back does not count.
 */
export const CONSENTS_SQL = `with recursive self (id, merged_at) as (
    select $2::uuid, null::timestamptz
    union all select m.absorbed_id, m.at from self join record_merge m on m.workspace_id = $1 and m.survivor_id = self.id and m.undone_at is null
  ), last_merge as (select max(merged_at) as at from self),
  said as (
    select c.id, c.channel, c.state, c.words, c.place, c.by, c.at,
      row_number() over (partition by c.contact_id, c.channel, c.at <= l.at order by c.at desc, c.id desc) = 1 and c.state = 'withdrawn' and c.at <= l.at as held_back, l.at as merged
    from self join consent c on c.workspace_id = $1 and c.contact_id = self.id cross join last_merge l
    left join attempt a on a.workspace_id = $1 and a.id = c.attempt_id where a.taken_back_by is null)
  select id, channel, state, words, place, by, at from said
  order by case when held_back then merged else at end desc, id desc limit 500`;
