import { chainOf, winning, type Chain, type JourneyPath } from './chain';

/** By how much less would be won without each state, as a share of what is won; of none where nothing is won. */
export function removalEffects(chain: Chain): Map<string, number> {
  const whole = winning(chain);
  return new Map(
    chain.states.map((state, at) => [state, whole === 0 ? 0 : Math.max(0, 1 - winning(chain, at) / whole)]),
  );
}

/** What one state is credited with of all that is won: in the middle, and between what of a hundred resamples ninety lie. */
export interface RemovalShare {
  state: string;
  share: number;
  low: number;
  high: number;
}

/** What the data say, and whether that is enough to say anything. */
export interface DataDriven {
  shares: RemovalShare[];
  /** A plain sentence, where the data are too thin for the shares to mean anything. */
  tooThin: string | null;
}

/** Fewer won journeys, or fewer of several states, say nothing. */
const LEAST_WON = 30;
const LEAST_SEVERAL = 0.1;
/** A share that may as well be this much larger or smaller says nothing. */
const WIDEST = 0.2;

/**
 * The share of each state by its removal effect (Anderl, Becker, von Wangenheim, Schumann: Mapping the customer journey,
 * 2016), with how far it would lie otherwise had other journeys come by chance (the bootstrap, Efron 1979).
 *
 * @param random Gives numbers from 0 to 1; the same numbers give the same answer.
 * @param told Hears after each resample how many are done.
 */
export function dataDriven(
  paths: readonly JourneyPath[],
  resamples: number,
  random: () => number,
  told: (done: number) => void = () => undefined,
): DataDriven {
  const shares = sharesOf(removalEffects(chainOf(paths)));
  const drawn = Array.from({ length: resamples }, (_, done) => {
    told(done);
    return sharesOf(removalEffects(chainOf(resampled(paths, random))));
  });
  const ranged = [...shares].map(([state, share]): RemovalShare => {
    const sorted = drawn.map((one) => one.get(state) ?? 0).sort((one, other) => one - other);
    const at = (part: number) => sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? share;
    return { state, share, low: at(0.05), high: at(0.95) };
  });
  return { shares: ranged.sort((one, other) => other.share - one.share), tooThin: tooThin(paths, ranged) };
}

function tooThin(paths: readonly JourneyPath[], shares: readonly RemovalShare[]): string | null {
  const won = sum(paths, (path) => path.won);
  if (won < LEAST_WON) return `Only ${won} of these journeys were won; ${LEAST_WON} is the least that says anything.`;
  const several = sum(paths, (path) => (new Set(path.steps).size > 1 ? path.won + path.notWon : 0));
  const all = sum(paths, (path) => path.won + path.notWon);
  if (several / all < LEAST_SEVERAL)
    return `Journeys are too short to tell: ${Math.round((1 - several / all) * 100)} % came by one thing alone.`;
  const unsure = shares.filter(({ low, high }) => high - low > WIDEST);
  return unsure.length
    ? `Other journeys by chance would have said something else: ${unsure[0]!.state} may be anything from ${Math.round(unsure[0]!.low * 100)} to ${Math.round(unsure[0]!.high * 100)} %.`
    : null;
}

/** Effects as parts of a whole; all alike where none has any. */
function sharesOf(effects: ReadonlyMap<string, number>): Map<string, number> {
  const whole = [...effects.values()].reduce((all, effect) => all + effect, 0);
  return new Map([...effects].map(([state, effect]) => [state, whole ? effect / whole : 1 / effects.size]));
}

/** As many journeys as there are, each drawn from all of them: which way they went, and whether they were won. */
function resampled(paths: readonly JourneyPath[], random: () => number): JourneyPath[] {
  const ends: number[] = [];
  let all = 0;
  // Those won and those not won of each path are drawn apart.
  for (const { won, notWon } of paths) ends.push((all += won), (all += notWon));
  const drawn = new Array<number>(ends.length).fill(0);
  for (let nth = 0; nth < all; nth += 1) {
    const at = random() * all;
    let [low, high] = [0, ends.length - 1];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (ends[middle]! > at) high = middle;
      else low = middle + 1;
    }
    drawn[low]! += 1;
  }
  return paths.map(({ steps }, nth) => ({ steps, won: drawn[2 * nth]!, notWon: drawn[2 * nth + 1]! }));
}

function sum(paths: readonly JourneyPath[], of: (path: JourneyPath) => number): number {
  return paths.reduce((all, path) => all + of(path), 0);
}
