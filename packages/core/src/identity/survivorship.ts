import type { FieldDefinition } from '../field/field-definition';
import { sameValue, type FieldValue } from '../diff/record';
import type { KnownRecord } from '../diff/known-record';

/** Which value of several records survives when they become one. */
export const SURVIVORSHIP_RULES = [
  'latest',
  'oldest',
  'most-complete',
  'most-frequent',
  'most-trusted',
  'keep-all',
  'only-if-all',
] as const;
export type SurvivorshipRule = (typeof SURVIVORSHIP_RULES)[number];

/** What each rule does, as a person reads it. */
export const SURVIVORSHIP_WORDS: Record<SurvivorshipRule, string> = {
  latest: 'the latest',
  oldest: 'the oldest',
  'most-complete': 'the most complete',
  'most-frequent': 'the most frequent',
  'most-trusted': 'from the most trusted source',
  'keep-all': 'all are kept',
  'only-if-all': 'yes only where all say yes',
};

/** How a workspace merges: a rule for each field that has one of its own, and sources in the order they are trusted. */
export interface MergeRules {
  /** By field key. */
  fields: Readonly<Record<string, SurvivorshipRule>>;
  /** Keys of intakes, and `typed` for what a person typed; the most trusted first. */
  trusted: readonly string[];
}

export const USUAL_MERGE_RULES: MergeRules = { fields: {}, trusted: ['typed'] };

const USUAL: Readonly<Record<string, SurvivorshipRule>> = {
  source: 'oldest',
  first_name: 'most-complete',
  last_name: 'latest',
  full_name: 'most-complete',
  name: 'most-complete',
};

/**
 * The rule for a field: the workspace’s own, or the usual one. Lists keep all. A yes that one record denies is no yes, since
 * a merge may not widen what somebody agreed to.
 */
export function ruleFor({ key, type }: Pick<FieldDefinition, 'key' | 'type'>, rules: MergeRules): SurvivorshipRule {
  if (type === 'yes-no') return rules.fields[key] ?? 'only-if-all';
  if (type === 'several-of') return 'keep-all';
  return rules.fields[key] ?? USUAL[key] ?? 'latest';
}

/** One of the values that a field has on the records, with the records that have it. */
export interface Candidate {
  value: FieldValue;
  records: readonly string[];
  /** When it was last written, ISO 8601. */
  writtenAt: string;
  /** Where it came from: the key of an intake, or `typed`. */
  origin: string | null;
}

/** Where the value of a field came from. */
export type OriginOf = (record: string, field: string) => string | null;

/** The different values of a field on some records, the latest first; blanks are none. */
export function candidatesFor(field: string, records: readonly KnownRecord[], originOf: OriginOf): Candidate[] {
  const found: (Candidate & { records: string[] })[] = [];
  for (const record of records) {
    const value = record.values[field];
    if (value === undefined) continue;
    const writtenAt = record.writtenAt[field] ?? record.createdAt;
    const origin = record.typed?.includes(field) ? 'typed' : originOf(record.id, field);
    const same = found.find((one) => sameValue(one.value, value));
    if (!same) found.push({ value, records: [record.id], writtenAt, origin });
    else {
      same.records.push(record.id);
      if (writtenAt > same.writtenAt) Object.assign(same, { writtenAt, origin });
    }
  }
  return found.sort((a, b) => (a.writtenAt < b.writtenAt ? 1 : a.writtenAt > b.writtenAt ? -1 : 0));
}

/**
 * The value that survives, or `null` where no record has one. Where a rule leaves several, the latest of them.
 *
 * @param candidates As `candidatesFor` answers them: the latest first.
 */
export function surviving(
  rule: SurvivorshipRule,
  candidates: readonly Candidate[],
  trusted: readonly string[] = [],
): FieldValue | null {
  if (!candidates.length) return null;
  switch (rule) {
    case 'latest':
      return candidates[0]!.value;
    case 'oldest':
      return candidates[candidates.length - 1]!.value;
    case 'most-complete':
      return most(candidates, ({ value }) => completeness(value));
    case 'most-frequent':
      return most(candidates, ({ records }) => records.length);
    case 'most-trusted':
      return most(candidates, ({ origin }) => {
        const rank = origin === null ? -1 : trusted.indexOf(origin);
        return rank < 0 ? 0 : trusted.length - rank;
      });
    case 'keep-all': {
      const all = candidates.flatMap(({ value }) => (Array.isArray(value) ? value : [String(value)]));
      return [...new Set(all)];
    }
    case 'only-if-all':
      return candidates.every(({ value }) => value === true)
        ? true
        : (candidates.find(({ value }) => value !== true)?.value ?? null);
  }
}

function most(candidates: readonly Candidate[], rank: (candidate: Candidate) => number): FieldValue {
  return candidates.reduce((best, candidate) => (rank(candidate) > rank(best) ? candidate : best)).value;
}

/** How much a value tells: its letters and digits, and marks that plain writing leaves out. */
function completeness(value: FieldValue): number {
  if (typeof value !== 'string') return 1;
  const plain = value.normalize('NFD').replace(/[^\p{L}\p{Nd}\p{M}]/gu, '').length;
  return plain + (/\p{Ll}/u.test(value) && /\p{Lu}/u.test(value) ? 0.5 : 0);
}
