/** Journeys that went the same way: what somebody came by, in order, and how many of them ended won, and not. */
export interface JourneyPath {
  steps: readonly string[];
  won: number;
  notWon: number;
}

/** A Markov chain of first order: how likely it goes on from each state to each, to a deal that is won, or to an end. */
export interface Chain {
  states: readonly string[];
  /** Of the beginning, and of each state: to each state. */
  start: readonly number[];
  next: readonly (readonly number[])[];
  /** Of the beginning, and of each state: to a deal that is won. */
  startWon: number;
  won: readonly number[];
}

/** Counts the steps of all journeys. */
export function chainOf(paths: readonly JourneyPath[]): Chain {
  const states = [...new Set(paths.flatMap(({ steps }) => steps))].sort();
  const index = new Map(states.map((state, at) => [state, at]));
  const size = states.length;
  // The beginning stands after the states, and so does winning.
  const counts = Array.from({ length: size + 1 }, () => new Float64Array(size + 1));
  const totals = new Float64Array(size + 1);
  for (const { steps, won, notWon } of paths) {
    const all = won + notWon;
    let from = size;
    for (const step of steps) {
      const to = index.get(step)!;
      counts[from]![to]! += all;
      totals[from]! += all;
      from = to;
    }
    counts[from]![size]! += won;
    totals[from]! += all;
  }
  const share = (from: number, to: number) => (totals[from] ? counts[from]![to]! / totals[from]! : 0);
  const each = Array.from({ length: size }, (_, at) => at);
  return {
    states,
    start: each.map((to) => share(size, to)),
    next: each.map((from) => each.map((to) => share(from, to))),
    startWon: share(size, size),
    won: each.map((from) => share(from, size)),
  };
}

/**
 * How likely a journey ends won: the chance of absorption, by which x = won + next · x (Kemeny and Snell, Finite Markov
 * Chains, 1960), solved by elimination with pivots.
 *
 * @param without A state that is taken out: whoever comes to it is lost.
 */
export function winning({ states, start, next, startWon, won }: Chain, without = -1): number {
  const size = states.length;
  const rows = Array.from({ length: size }, (_, from) => {
    const row = new Float64Array(size + 1);
    for (let to = 0; to < size; to += 1)
      row[to] = (from === to ? 1 : 0) - (from === without || to === without ? 0 : next[from]![to]!);
    row[size] = from === without ? 0 : won[from]!;
    return row;
  });
  for (let at = 0; at < size; at += 1) {
    let best = at;
    for (let row = at + 1; row < size; row += 1) if (Math.abs(rows[row]![at]!) > Math.abs(rows[best]![at]!)) best = row;
    [rows[at], rows[best]] = [rows[best]!, rows[at]!];
    const pivot = rows[at]![at]!;
    // Nothing leaves a state that leads to itself alone: nothing is won from there.
    if (Math.abs(pivot) < 1e-12) continue;
    for (let row = 0; row < size; row += 1) {
      const factor = row === at ? 0 : rows[row]![at]! / pivot;
      if (factor !== 0) for (let to = at; to <= size; to += 1) rows[row]![to]! -= factor * rows[at]![to]!;
    }
  }
  return start.reduce((sum, share, at) => {
    const pivot = rows[at]![at]!;
    return at === without || Math.abs(pivot) < 1e-12 ? sum : sum + (share * rows[at]![size]!) / pivot;
  }, startWon);
}
