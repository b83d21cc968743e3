import type { Pattern } from './agreement';
import { LEVELS, levelsOf } from './agreement';
import { BY_CHANCE, NO_SIGN, type FieldOdds, type LikenessModel, type Odds } from './model';

/** What a model is learned from. */
export interface Observed {
  records: number;
  /** Pairs that were compared since something speaks for them, counted by pattern. */
  candidates: ReadonlyMap<Pattern, number>;
  /** Pairs taken at random, counted by pattern. */
  random: ReadonlyMap<Pattern, number>;
  /** Pairs that people decided, by pattern. */
  same: ReadonlyMap<Pattern, number>;
  different: ReadonlyMap<Pattern, number>;
}

/** How many pairs a starting value is worth beside what is observed. “Same” is held firmer than what it is told from. */
const STARTING_WEIGHT = 40;
const SAME_WEIGHT = 600;
/** How many observed pairs one decision of a person is worth, while they are few. */
const DECISION_WEIGHT = 5;
/** People are asked about the unusual: what they decide makes up no more than this share of a class. */
const MOST_DECIDED = 0.3;
/** How many of the candidates are the same, before anything is known. */
const USUAL_SAME = 0.2;
/** Fewer records have too few pairs to learn from: the starting values are better. */
const FEWEST = 200;
const MOST_ROUNDS = 200;
/** Rounds end when no probability moves further than this. */
const SETTLED = 1e-6;
const LEAST = 1e-6;

interface Class {
  share: number;
  odds: Odds[];
  start: Odds[];
  /** How many pairs its starting values are worth. */
  weight: number;
  startShare: number;
  /** Fields in which it is by its nature as any two records are. */
  fixed: readonly boolean[];
}

/**
 * Learns a model by expectation-maximisation (Dempster, Laird and Rubin 1977; for record linkage Winkler 1988, Jaro 1989)
 * on the pairs that blocking finds: each round says how likely a pair is of each class (same, each relation, unrelated),
 * then each class takes the levels of its pairs. The starting values take part as if some pairs had been seen (a Dirichlet
 * prior), which keeps classes that few pairs belong to in their place. Decisions of people are pairs whose class is known.
 * `u` is taken from pairs at random, since candidates are chosen for agreeing.
 */
export function estimateModel(start: LikenessModel, observed: Observed): LikenessModel {
  const { records } = observed;
  const pairs = [...observed.candidates].map(([pattern, count]) => ({ levels: indexes(pattern), count }));
  const total = pairs.reduce((sum, { count }) => sum + count, 0);
  const random = [...observed.random].map(([pattern, count]) => ({ levels: indexes(pattern), count }));
  const fields = start.fields.map((field, index) => ({
    ...field,
    unrelated: notRarer(smoothed(field.unrelated, levelCounts(random, index)), field.unrelated),
  }));
  if (!total || records < FEWEST) return { ...start, records };
  const decided = [...decisions(observed.same, true, total), ...decisions(observed.different, false, total)];

  const classes = startingClasses({ ...start, fields }, total);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const moved = maximise(classes, expect(classes, pairs, decided), total);
    if (moved < SETTLED) break;
  }
  const [same, ...rest] = classes;
  const allPairs = Math.max(1, (records * (records - 1)) / 2);
  const shareOfAll = ({ share }: Class) => Math.min(0.5, Math.max(1e-9, (share * total) / allPairs));
  const sameShare = shareOfAll(same!);
  const learned = fields.map((field, index): FieldOdds => ({ ...field, same: same!.odds[index]! }));
  return {
    ...start,
    records,
    sameShare,
    fields: learned,
    relations: start.relations.map((relation, r) => {
      const { odds } = rest[r]!;
      return {
        ...relation,
        share: relation.name === 'colleagues' ? colleaguesShare(learned, sameShare) : shareOfAll(rest[r]!),
        odds: Object.fromEntries(
          learned.map(({ field, unrelated }, index) => [
            field,
            // Candidates were chosen for having a name in common, which tells nothing of how often colleagues have.
            relation.name !== 'namesakes' && BY_CHANCE[relation.name].includes(field) ? unrelated : odds[index]!,
          ]),
        ),
      };
    }),
    learned: { pairs: total, decisions: counted(observed.same) + counted(observed.different) },
  };
}

/** Decided pairs as observed ones of a known class. */
function decisions(
  patterns: ReadonlyMap<Pattern, number>,
  same: boolean,
  total: number,
): (Counted & { same: boolean })[] {
  const usualMembers = total * (same ? USUAL_SAME : 1 - USUAL_SAME);
  const weight = Math.min(DECISION_WEIGHT, (MOST_DECIDED * usualMembers) / Math.max(1, counted(patterns)));
  return [...patterns].map(([pattern, count]) => ({ levels: indexes(pattern), count: count * weight, same }));
}

function counted(patterns: ReadonlyMap<Pattern, number>): number {
  return [...patterns.values()].reduce((sum, count) => sum + count, 0);
}

/** How many of all pairs are of one company, and not one person: most have nothing else in common and are no candidates. */
function colleaguesShare(fields: readonly FieldOdds[], sameShare: number): number {
  const company = fields.find(({ field }) => field === 'company');
  return Math.max(1e-9, (company?.unrelated.exact ?? 0) - sameShare * (company?.same.exact ?? 0));
}

interface Counted {
  /** For each field 0 exact, 1 near, 2 far, -1 missing. */
  levels: number[];
  count: number;
}

function indexes(pattern: Pattern): number[] {
  return levelsOf(pattern).map((level) => (level === 'missing' ? -1 : LEVELS.indexOf(level)));
}

/** Same first, then the relations, then whatever blocking found without reason. */
function startingClasses({ fields, relations }: LikenessModel, total: number): Class[] {
  const shares = [USUAL_SAME, ...relations.map(() => 0.1)];
  const unrelated = 1 - shares.reduce((sum, share) => sum + share, 0);
  const free = fields.map(() => false);
  const class_ = (share: number, odds: Odds[], weight: number, fixed = free): Class => ({
    share,
    startShare: share,
    odds,
    start: odds,
    weight: Math.min(weight, total),
    fixed,
  });
  // Candidates without reason agree by chance in what they were found by, so a little more often than pairs at random.
  const byChance = fields.map(({ unrelated: { exact, near } }): Odds => {
    const [e, n] = [Math.min(0.3, exact * 5 + 0.02), Math.min(0.2, near * 5 + 0.02)];
    return { exact: e, near: n, far: 1 - e - n };
  });
  return [
    class_(
      shares[0]!,
      fields.map(({ same }) => same),
      SAME_WEIGHT,
    ),
    ...relations.map(({ name, odds }, r) => {
      const fixed = fields.map(
        ({ field }) => NO_SIGN[name].includes(field) || (name === 'namesakes' && field === 'email'),
      );
      const own = fields.map(({ field, unrelated }) => (NO_SIGN[name].includes(field) ? unrelated : odds[field]!));
      return class_(shares[r + 1]!, own, STARTING_WEIGHT, fixed);
    }),
    class_(unrelated, byChance, 2),
  ];
}

/** How many pairs of each class agree how far in each field: `[class][field][level]`, and how many each class has. */
interface Expected {
  levels: number[][][];
  members: number[];
}

function expect(
  classes: readonly Class[],
  pairs: readonly Counted[],
  decided: readonly (Counted & { same: boolean })[],
): Expected {
  const expected: Expected = {
    levels: classes.map(({ odds }) => odds.map(() => [0, 0, 0])),
    members: classes.map(() => 0),
  };
  const add = (pair: Counted, allowed: (index: number) => boolean, counts: boolean) => {
    const likely = classes.map(({ share, odds }, c) => (allowed(c) ? share * product(odds, pair.levels) : 0));
    const sum = likely.reduce((a, b) => a + b, 0);
    if (!sum) return;
    likely.forEach((each, c) => {
      const part = (pair.count * each) / sum;
      if (counts) expected.members[c]! += part;
      pair.levels.forEach((level, field) => {
        if (level >= 0) expected.levels[c]![field]![level]! += part;
      });
    });
  };
  for (const pair of pairs) add(pair, () => true, true);
  for (const pair of decided) add(pair, (index) => (index === 0) === pair.same, false);
  return expected;
}

function maximise(classes: Class[], { levels, members }: Expected, total: number): number {
  let moved = 0;
  classes.forEach((class_, c) => {
    const share = (members[c]! + class_.weight * class_.startShare) / (total + class_.weight);
    moved = Math.max(moved, Math.abs(share - class_.share));
    class_.share = share;
    class_.odds = class_.odds.map((odds, field) => {
      if (class_.fixed[field]) return odds;
      const next = smoothed(class_.start[field]!, levels[c]![field]!, class_.weight);
      moved = Math.max(moved, Math.abs(next.exact - odds.exact), Math.abs(next.near - odds.near));
      return next;
    });
  });
  return moved;
}

function product(odds: readonly Odds[], levels: readonly number[]): number {
  let product = 1;
  for (let field = 0; field < levels.length; field++) {
    const level = levels[field]!;
    if (level >= 0) product *= odds[field]![LEVELS[level]!];
  }
  return product;
}

function levelCounts(pairs: readonly Counted[], field: number): number[] {
  const counts = [0, 0, 0];
  for (const { levels, count } of pairs) if (levels[field]! >= 0) counts[levels[field]!]! += count;
  return counts;
}

/** What was not seen among some pairs is not much rarer than it is known to be. */
function notRarer(odds: Odds, start: Odds): Odds {
  const [exact, near] = [Math.max(odds.exact, start.exact / 3), Math.max(odds.near, start.near / 3)];
  return { exact, near, far: 1 - exact - near };
}

/** The shares of three counts, with the starting values as if some had been seen. */
function smoothed(start: Odds, counts: readonly number[], weight = STARTING_WEIGHT): Odds {
  const values = LEVELS.map((level, index) => counts[index]! + weight * start[level]);
  const sum = values.reduce((a, b) => a + b, 0) || 1;
  const [exact, near] = [Math.max(LEAST, values[0]! / sum), Math.max(LEAST, values[1]! / sum)];
  return { exact, near, far: Math.max(LEAST, 1 - exact - near) };
}
