/** What of a journey is asked: the model, and how far back touches count. */
export interface StepsWish {
  model: string;
  /** Days before the deal was begun; without, however long ago. */
  window: number | null;
  halfLife: number;
}

/** By how much a step `s` faded since the last; beyond this it is as good as nothing, and no number of the database. */
function faded(halfLife: number): string {
  return `exp(greatest(-500, s.ago * ${-Math.LN2 / 86_400 / Math.trunc(halfLife)}::float8))`;
}

/**
 * The share of a step `s` of a journey of `n` steps that faded to `whole` together, by each model as `shares` of the core has
 * it. A test holds both beside each other.
 */
function shareSql({ model, halfLife }: StepsWish, n: string, whole: string): string {
  switch (model) {
    case 'first':
      return `(s.back = ${n})::int::float8`;
    case 'last':
      return `(s.back = 1)::int::float8`;
    case 'position':
      return `case when ${n} <= 2 then 1::float8 / ${n} when s.back = 1 or s.back = ${n} then 0.4::float8 else 0.2::float8 / (${n} - 2) end`;
    case 'decay':
      return `${faded(halfLife)} / ${whole}`;
    default:
      return `1::float8 / ${n}`;
  }
}

/**
 * The steps that led to `picked p` (deals with `id` and `created_at`) as what stands after `from`, and the share of each.
 *
 * @param picked What stands before the steps, as `picked p`. @param basis The number of the parameter that says whose touches count.
 */
export function stepsOf(picked: string, wish: StepsWish, basis: number): { from: string; share: string } {
  const within = wish.window === null ? '' : `and s.at >= p.created_at - interval '${Math.trunc(wish.window)} days'`;
  const join = `join journey_step s on s.workspace_id = $1 and s.record_id = p.id and $${basis}::smallint between s.basis and s.to_basis ${within}`;
  if (wish.window === null && wish.model !== 'decay')
    return { from: `${picked} ${join}`, share: shareSql(wish, 's.of', '') };
  // How many are within, and what they faded to together, takes a look at each journey as a whole.
  const whole = `join (select p.id, max(s.back) as n, sum(${faded(wish.halfLife)}) as whole from ${picked} ${join} group by p.id) j on j.id = p.id`;
  return { from: `${picked} ${whole} ${join}`, share: shareSql(wish, 'j.n', 'j.whole') };
}
