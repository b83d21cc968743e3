import { patternOf, type Agreement, type Pattern } from './agreement';
import { agreements, COMPARED_FIELDS } from './compared-fields';
import type { ComparedRecord } from './compared';
import { BY_CHANCE, oddsOf, type FieldOdds, type LikenessModel, type Relation } from './model';

/** What one thing adds to or takes from the likeness, in bits: one bit doubles or halves the odds. */
export interface Share {
  /** A compared field; or `begin`: what is to be expected of any two records; or `related`: that others would agree so too. */
  of: string;
  label: string;
  bits: number;
  agreement: Agreement | null;
  /** How many of a hundred thousand records have the value on which they agree, where several do. */
  common: number | null;
}

/** How like two records are, with what that comes from. */
export interface Likeness {
  /** The probability that both are the same, 0 to 1. */
  probability: number;
  /** The same as log2 of the odds: the sum of the shares. */
  bits: number;
  shares: Share[];
  /** How far they agree in each field. */
  pattern: Pattern;
}

/** No value is so rare that it proves more than this. */
const RAREST = 1e-6;
/** A value that only the two have may be had by some more people: so many times the rate of one. Chosen on generated people. */
const UNSEEN = 8;
/** How often a number that only two records have is that of an office all the same. */
const SWITCHBOARD = 0.1;

/** How like two records of one kind are. */
export function likeness(model: LikenessModel, one: ComparedRecord, other: ComparedRecord): Likeness {
  return likenessOf(model, agreements(one, other));
}

/** How like two records are that agree so far, in the order of `COMPARED_FIELDS`, with what that comes from. */
export function likenessOf(model: LikenessModel, agreed: readonly Agreement[]): Likeness {
  const weight = weigh(model, agreed);
  const fields = COMPARED_FIELDS[model.record];
  const shares: Share[] = [
    { of: 'begin', label: 'Any two records', bits: weight.begin, agreement: null, common: null },
    ...agreed.map((agreement, index) => {
      const { field, label } = fields[index]!;
      const common = agreement.value === undefined ? undefined : model.common[field]?.[agreement.value];
      return {
        of: field,
        label,
        bits: weight.fields[index]!,
        agreement,
        common: common === undefined ? null : Math.round(common * 100_000),
      };
    }),
  ];
  if (weight.related !== null) {
    const label = 'Family, colleagues, namesakes';
    shares.push({ of: 'related', label, bits: weight.related, agreement: null, common: null });
  }
  const bits = bitsOf(weight);
  const pattern = patternOf(agreed.map(({ level }) => level));
  return { probability: probabilityOf(bits), bits, shares, pattern };
}

/** The same as one number, for sifting many: the probability that both are the same. */
export function howLikely(model: LikenessModel, agreed: readonly Agreement[]): number {
  return probabilityOf(bitsOf(weigh(model, agreed)));
}

/** What each thing weighs, in bits; `related` is `null` for records that have no relatives. */
interface Weight {
  begin: number;
  fields: number[];
  related: number | null;
}

/**
 * Each field adds `log2(m / u)` (Fellegi and Sunter 1969); where both have the same value, `u` is how common that value is
 * (Winkler 1989). What relatives or colleagues would agree in as well is taken off as one share, so that the sum is the log
 * odds of “same” against everything else.
 */
function weigh(model: LikenessModel, agreed: readonly Agreement[]): Weight {
  const { relations, sameShare } = model;
  const unrelatedShare = Math.max(RAREST, 1 - sameShare - relations.reduce((sum, { share }) => sum + share, 0));
  const fields: number[] = [];
  let unrelated = unrelatedShare;
  const related = relations.map(({ share }) => share);
  agreed.forEach((agreement, index) => {
    const odds = model.fields[index]!;
    const u = unrelatedOdds(model, index, agreement);
    fields.push(agreement.level === 'missing' ? 0 : Math.log2(oddsOf(odds.same, agreement.level) / u));
    unrelated *= u;
    const isShared = (model.common[odds.field]?.[agreement.value ?? ''] ?? 0) > 0;
    relations.forEach((relation, r) => {
      related[r]! *= relatedOdds(relation, odds, agreement, u, isShared);
    });
  });
  const begin = logOdds(sameShare);
  if (!relations.length) return { begin, fields, related: null };
  const more = related.reduce((sum, odds) => sum + odds / unrelated, 0);
  // The first share is against all that is not the same; the odds against the unrelated alone, and then the related.
  return { begin, fields, related: -Math.log2(1 + more) + Math.log2((1 - sameShare) / unrelatedShare) };
}

function bitsOf({ begin, fields, related }: Weight): number {
  return fields.reduce((sum, bits) => sum + bits, begin) + (related ?? 0);
}

function probabilityOf(bits: number): number {
  return 1 / (1 + 2 ** -bits);
}

function unrelatedOdds(model: LikenessModel, index: number, { level, value }: Agreement): number {
  const { field, unrelated } = model.fields[index]!;
  if (level !== 'exact' || value === undefined) return Math.max(RAREST, oddsOf(unrelated, level));
  const held = model.common[field]?.[value] ?? 0;
  // A value that nobody else has is rarer than the usual one, the more so the more records there are to know it from.
  const seen = model.common[field] ? 1 / ((model.sampled ?? model.records) + 1 / unrelated.exact) : unrelated.exact;
  return Math.max(RAREST, held, Math.min(unrelated.exact, seen * UNSEEN));
}

function relatedOdds(
  { name, odds }: Relation,
  { field, unrelated }: FieldOdds,
  { level, value }: Agreement,
  common: number,
  shared: boolean,
): number {
  const usual = oddsOf(odds[field]!, level);
  if (level === 'exact' && name === 'colleagues' && field === 'phone' && !shared) return usual * SWITCHBOARD;
  const byChance = level === 'exact' && value !== undefined && BY_CHANCE[name].includes(field);
  return Math.max(RAREST, Math.min(1, byChance ? (usual * common) / unrelated.exact : usual));
}

function logOdds(probability: number): number {
  return Math.log2(probability / (1 - probability));
}
