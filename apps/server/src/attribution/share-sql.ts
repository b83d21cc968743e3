/** The part of a day that a touch fades by, as the power of e; smaller is as good as nothing, and no number of the database. */
const FADED = `greatest(-500, extract(epoch from at - last_at)::float8 / 86400 * 0.6931471805599453::float8 / $HALF)`;

/**
 * The share of a step by each model, as `shares` of the core has it: of `n` steps the one that is `back` from the last. A
 * test holds both beside each other.
 */
const SHARES: Readonly<Record<string, string>> = {
  first: `(back = n)::int::float8`,
  last: `(back = 1)::int::float8`,
  equal: `1::float8 / n`,
  position: `case when n <= 2 then 1::float8 / n when back = 1 or back = n then 0.4::float8 else 0.2::float8 / (n - 2) end`,
  decay: `exp(${FADED}) / sum(exp(${FADED})) over (partition by record_id)`,
};

/** What of a step is asked: the model, and how far back touches count. */
export interface StepsWish {
  model: string;
  /** Days before the deal was begun; without, however long ago. */
  window: number | null;
  halfLife: number;
}

/**
 * The steps that led to `picked` (deals with `id` and `created_at`) by the basis in `$basis`, each with its share.
 *
 * @param basis The number of a parameter.
 */
export function stepsSql({ model, window, halfLife }: StepsWish, basis: number): string {
  const counted = window === null ? 's.of' : 'count(*) over (partition by s.record_id)';
  const within = window === null ? '' : `and s.at >= p.created_at - interval '${Math.trunc(window)} days'`;
  const lastAt = model === 'decay' ? ', max(s.at) over (partition by s.record_id) as last_at' : '';
  const share = SHARES[model]!.replaceAll('$HALF', String(Math.trunc(halfLife)));
  return `select record_id, source_id, visit_id, back, last_of, at, ${share} as share from (
    select s.record_id, s.source_id, s.visit_id, s.back, s.last_of, s.at, ${counted}::int as n${lastAt}
    from picked p join journey_step s on s.workspace_id = $1 and s.record_id = p.id and $${basis} between s.basis and s.to_basis ${within}) steps`;
}
