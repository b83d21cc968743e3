import type { RecordKind } from '../../diff/record';
import { LEVELS, type Level } from './agreement';
import { COMPARED_FIELDS } from './compared-fields';

/** How often records agree exactly, nearly and not at all, where both tell; the three come to 1. */
export type Odds = Readonly<Record<(typeof LEVELS)[number], number>>;

/** What is expected of one compared field: the `m` and `u` probabilities of Fellegi and Sunter (1969). */
export interface FieldOdds {
  field: string;
  /** Of two records of the same person or company. */
  same: Odds;
  /** Of two records that have nothing to do with each other. */
  unrelated: Odds;
}

export const RELATION_NAMES = ['family', 'colleagues', 'namesakes'] as const;
export type RelationName = (typeof RELATION_NAMES)[number];

/** Different people who agree in much: a family at one address, colleagues at one switchboard, people of one name. */
export interface Relation {
  name: RelationName;
  /** How many of all pairs of records are such. */
  share: number;
  /** By field. */
  odds: Readonly<Record<string, Odds>>;
}

/**
 * What likeness is worked out from: record linkage after Fellegi and Sunter (1969), with relations as further classes of
 * pairs beside “same” and “unrelated”, so that what a whole family or office shares does not add up to one person.
 */
export interface LikenessModel {
  record: RecordKind;
  /** How many records the workspace has of the kind. */
  records: number;
  /** How many of all pairs of records are the same. */
  sameShare: number;
  fields: readonly FieldOdds[];
  relations: readonly Relation[];
  /** By field and value: which share of the records has it, for values that several have. */
  common: Readonly<Record<string, Readonly<Record<string, number>>>>;
  /** Of how many records `common` tells; of all where it is not said. */
  sampled?: number;
  /** From how much it was learned; `null`: the starting values. */
  learned: { pairs: number; decisions: number } | null;
}

/** Few records say little of how many there will be. */
const FEWEST = 200;
/** How many of the records of a workspace are there once more under another guise; a starting value. */
const DOUBLED = 0.15;

const odds = (exact: number, near: number): Odds => ({ exact, near, far: 1 - exact - near });

interface Start {
  same: Odds;
  unrelated: Odds;
  family?: Odds;
  colleagues?: Odds;
  namesakes?: Odds;
}

const PERSON_START: Record<string, Start> = {
  given: {
    same: odds(0.8, 0.16),
    unrelated: odds(0.008, 0.012),
    family: odds(0.01, 0.012),
    colleagues: odds(0.01, 0.012),
    namesakes: odds(0.9, 0.08),
  },
  family: {
    same: odds(0.86, 0.1),
    unrelated: odds(0.002, 0.004),
    family: odds(0.85, 0.08),
    colleagues: odds(0.015, 0.006),
    namesakes: odds(0.9, 0.08),
  },
  email: {
    same: odds(0.5, 0.2),
    unrelated: odds(0.000001, 0.0003),
    family: odds(0.08, 0.03),
    colleagues: odds(0.005, 0.005),
    namesakes: odds(0.000002, 0.02),
  },
  phone: {
    same: odds(0.6, 0.06),
    unrelated: odds(0.00001, 0.0002),
    family: odds(0.5, 0.02),
    colleagues: odds(0.3, 0.05),
    namesakes: odds(0.0005, 0.0005),
  },
  company: {
    same: odds(0.72, 0.08),
    unrelated: odds(0.002, 0.004),
    family: odds(0.3, 0.03),
    colleagues: odds(0.94, 0.04),
    namesakes: odds(0.01, 0.01),
  },
  country: {
    same: odds(0.96, 0.005),
    unrelated: odds(0.4, 0.005),
    family: odds(0.97, 0.005),
    colleagues: odds(0.95, 0.005),
    namesakes: odds(0.9, 0.005),
  },
  job: {
    same: odds(0.4, 0.2),
    unrelated: odds(0.05, 0.08),
    family: odds(0.08, 0.08),
    colleagues: odds(0.1, 0.15),
    namesakes: odds(0.05, 0.08),
  },
};

const STARTS: Record<RecordKind, Record<string, Start>> = {
  contact: PERSON_START,
  lead: PERSON_START,
  company: {
    name: { same: odds(0.72, 0.22), unrelated: odds(0.0005, 0.01) },
    domain: { same: odds(0.72, 0.16), unrelated: odds(0.00001, 0.0005) },
    phone: { same: odds(0.7, 0.05), unrelated: odds(0.00002, 0.0002) },
    country: { same: odds(0.95, 0.005), unrelated: odds(0.4, 0.005) },
  },
  deal: {
    name: { same: odds(0.6, 0.25), unrelated: odds(0.001, 0.02) },
    contact: { same: odds(0.85, 0.05), unrelated: odds(0.001, 0.0001) },
    company: { same: odds(0.85, 0.05), unrelated: odds(0.005, 0.002) },
    value: { same: odds(0.6, 0.2), unrelated: odds(0.02, 0.08) },
    begun: { same: odds(0.4, 0.4), unrelated: odds(0.01, 0.06) },
    pipeline: { same: odds(0.97, 0.001), unrelated: odds(0.4, 0.001) },
  },
};

/** How many pairs are of a family or of one company, to those that are the same person. */
const TO_SAME = { family: 0.6, colleagues: 3 };
/** How many of all pairs of people have one name, beyond what chance makes of given and family names apart. */
const NAMESAKES = 0.00002;
/** What agrees by chance in a relation, so that a rare value is as rare there as elsewhere. */
export const BY_CHANCE: Readonly<Record<RelationName, readonly string[]>> = {
  family: ['given'],
  colleagues: ['given', 'family'],
  namesakes: ['given', 'family'],
};

/** In what people of a relation are as any two people are. */
export const NO_SIGN: Readonly<Record<RelationName, readonly string[]>> = {
  family: [],
  colleagues: [],
  namesakes: ['phone', 'company', 'job'],
};

/** The model before anything was learned, sound for an empty workspace. */
export function startingModel(record: RecordKind, records = 0): LikenessModel {
  const start = STARTS[record];
  const sameShare = (2 * DOUBLED) / Math.max(FEWEST, records);
  const relations = record === 'contact' || record === 'lead' ? RELATION_NAMES : [];
  return {
    record,
    records,
    sameShare,
    fields: COMPARED_FIELDS[record].map(({ field }) => ({
      field,
      same: start[field]!.same,
      unrelated: start[field]!.unrelated,
    })),
    relations: relations.map((name) => ({
      name,
      share: name === 'namesakes' ? NAMESAKES : sameShare * TO_SAME[name],
      odds: Object.fromEntries(COMPARED_FIELDS[record].map(({ field }) => [field, start[field]![name]!])),
    })),
    common: {},
    learned: null,
  };
}

/**
 * A model for more records than it was made for, as while a file is brought in: the more records, the fewer of their pairs are
 * the same, of one family or of one company; namesakes stay as frequent.
 *
 * @param common What is common among `sampled` of the records.
 */
export function grownModel(
  model: LikenessModel,
  { records, common, sampled }: Required<Pick<LikenessModel, 'records' | 'common' | 'sampled'>>,
): LikenessModel {
  const less = Math.min(1, Math.max(FEWEST, model.records) / records);
  return {
    ...model,
    records,
    sameShare: model.sameShare * less,
    relations: model.relations.map((relation) =>
      relation.name === 'namesakes' ? relation : { ...relation, share: relation.share * less },
    ),
    common,
    sampled,
  };
}

/** How likely a level is; what is missing says nothing. */
export function oddsOf(odds: Odds, level: Level): number {
  return level === 'missing' ? 1 : odds[level];
}
