import { KEPT_HALF_LIVES, KEPT_WINDOWS } from '@haycart/core';

/** What of a journey is asked: the model, and how far back touches count. */
export interface StepsWish {
  model: string;
  /** Days before the deal was begun; without, however long ago. */
  window: number | null;
  halfLife: number;
}

/** The weight of a step `s` by how long before the last touch it was. The exponent is bounded, since smaller results are errors in the database. */
export function faded(halfLife: number): string {
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
    case 'equal':
      return `1::float8 / ${n}`;
    default:
      throw new Error(`The database knows no model “${model}”.`);
  }
}

/**
 * The steps `s` that meet a condition as what stands after `from`, and the share of each.
 *
 * @param condition What stands after `where`.
 * @param joined What else is joined with each step.
 */
export function stepsOf(condition: string, wish: StepsWish, joined = ''): { from: string; share: string } {
  const within = wish.window === null ? '' : ` and s.at >= s.made_at - interval '${Math.trunc(wish.window)} days'`;
  const where = `where ${condition}${within}`;
  const kept = keptWith(wish);
  if (kept) return { from: `journey_step s ${joined} ${where}`, share: shareSql(wish, kept.n, kept.whole) };
  // The number of touches inside the window, and the sum of their weights, are worked out for each journey first.
  const whole = `(select s.record_id, max(s.back) as n, sum(${faded(wish.halfLife)}) as whole from journey_step s ${where} group by 1) j`;
  return {
    from: `journey_step s join ${whole} on j.record_id = s.record_id ${joined} ${where}`,
    share: shareSql(wish, 'j.n', 'j.whole'),
  };
}

/** How many touches count, and what they weigh together, where steps know it themselves. */
function keptWith({ model, window, halfLife }: StepsWish): { n: string; whole: string } | null {
  const n = window === null ? 's.of' : KEPT_WINDOWS.some((days) => days === window) ? `s.in_${window}` : null;
  if (n === null) return null;
  if (model !== 'decay') return { n, whole: '' };
  return window === null && KEPT_HALF_LIVES.some((days) => days === halfLife)
    ? { n, whole: `s.fade_${halfLife}` }
    : null;
}
