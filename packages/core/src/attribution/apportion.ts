/**
 * Shares out a whole number by weights so that the parts are whole and add up to it exactly: each gets what is due rounded
 * down, and what is left goes one by one to the largest remainders (Hamilton's method), the earlier of equals first.
 *
 * @param total A whole number; parts of a negative one are shared out as those of a positive.
 * @param weights None negative. Where all are 0 everything goes to the first.
 */
export function apportion(total: number, weights: readonly number[]): number[] {
  if (!weights.length) return [];
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  if (whole === 0) return weights.map((_, index) => (index === 0 ? total : 0));
  const sign = Math.sign(total);
  const due = weights.map((weight) => (Math.abs(total) * weight) / whole);
  const parts = due.map(Math.floor);
  let left = Math.abs(total) - parts.reduce((sum, part) => sum + part, 0);
  const byRemainder = due
    .map((amount, index) => ({ index, remainder: amount - parts[index]! }))
    .sort((one, other) => other.remainder - one.remainder || one.index - other.index);
  // Rounding of large amounts may leave more than one each, or have given one too many.
  for (let at = 0; left !== 0; at = (at + 1) % byRemainder.length) {
    const { index } = byRemainder[left > 0 ? at : byRemainder.length - 1 - at]!;
    if (left < 0 && parts[index] === 0) continue;
    parts[index]! += Math.sign(left);
    left -= Math.sign(left);
  }
  return parts.map((part) => (part === 0 ? 0 : part * sign));
}
