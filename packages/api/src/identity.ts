import type {
  CandidateShare,
  FieldValue,
  LikenessModel,
  MailboxReading,
  MergeRules,
  RecordKind,
  Thresholds,
} from '@haycart/core';
import type { RecordLinkShape } from './records';

/** One of the records that may be the same, with what helps to tell. */
export interface RecordSide {
  id: string;
  kind: RecordKind;
  number: number;
  name: string;
  createdAt: string;
  /** When something last happened to it. */
  lastActivity: string;
  links: RecordLinkShape[];
  /** Its values as people read them, by field. */
  texts: Record<string, string>;
}

/** A field of the record that a merge makes. */
export interface MergedFieldShape {
  field: string;
  label: string;
  value: FieldValue | null;
  text: string;
  /** Why this value, in words. */
  why: string;
  /** The values there are, with the ids of the records that have each. */
  candidates: { value: FieldValue; text: string; records: string[]; writtenAt: string; origin: string | null }[];
}

/** What a merge would do; nothing is done. */
export interface MergeRehearsal {
  kind: RecordKind;
  survivor: string;
  sides: RecordSide[];
  fields: MergedFieldShape[];
  thresholds: Thresholds;
  /** How like the first two are, and what that comes from. */
  probability: number;
  shares: CandidateShare[];
}

/** A merge that was done. */
export interface MergeShape {
  id: string;
  kind: RecordKind;
  survivor: RecordLinkShape | null;
  absorbed: { id: string; number: number; name: string };
  by: string;
  at: string;
  probability: number | null;
  undone: { by: string; at: string } | null;
}

/** Something that came to a merged record since, and to whom it goes when they are separated; `null`: a person must say. */
export interface SinceMergeShape {
  /** The run, or the act of a person, or the note, task or file. */
  id: string;
  at: string;
  text: string;
  to: string | null;
}

/** What undoing a merge would do; nothing is done. */
export interface UnmergeRehearsal {
  merge: MergeShape;
  since: SinceMergeShape[];
  /** Both records as they would be, as people read them. */
  records: { id: string; number: number; name: string; texts: { label: string; text: string }[] }[];
}

/** A pair of records that may be the same, as a list shows it. */
export interface LookAlikeLine {
  kind: RecordKind;
  one: RecordLinkShape;
  other: RecordLinkShape;
  probability: number;
}

/** The others that hang together with a pair; `complete`: all of them are like one another. */
export interface LookAlikeGroup {
  others: RecordLinkShape[];
  complete: boolean;
}

/** A submission that may mean one of several records: what came in, and those that it may mean. */
export interface WhichRecord {
  submission: string;
  route: string;
  write: string;
  kind: RecordKind;
  came: { label: string; text: string }[];
  candidates: (RecordSide & { probability: number | null; shares: CandidateShare[] })[];
}

/** One look through all records of a kind. */
export interface ScanShape {
  id: string;
  kind: RecordKind;
  state: 'running' | 'done' | 'cancelled';
  records: number;
  partsDone: number;
  parts: number;
  pairs: number;
  found: number;
  startedAt: string;
  finishedAt: string | null;
  by: string;
}

/** What recognition did and how well, over some weeks. */
export interface IdentityReport {
  kind: RecordKind;
  settings: { mailboxes: MailboxReading; merging: MergeRules; thresholds: Thresholds };
  model: Pick<LikenessModel, 'records' | 'learned' | 'sameShare' | 'fields' | 'relations'> & {
    learnedAt: string | null;
  };
  scan: ScanShape | null;
  /** How many pairs have which probability, in hundredths: of all that nobody merged, decided ones too. */
  scores: number[];
  open: number;
  /** Pairs found, by week (its Monday) and intake. */
  weeks: { week: string; intake: string | null; found: number }[];
  /** By which rule runs recognised whom, over the last 30 days. */
  rules: { by: string; times: number }[];
  asked: number;
  /** What people decided, by the probability that was shown, in tenths. */
  calibration: { from: number; decided: number; same: number }[];
  /** Merges that were undone, or look doubtful by what is known now. */
  suspected: (MergeShape & { now: number | null })[];
  merges: MergeShape[];
}

/** Pairs on either side of a threshold, those nearest to it first, and how many that wait there are. */
export interface ThresholdExamples {
  accepted: number;
  asked: number;
  /** Of those asked about, how many lie over the line and are asked about since the names may be those of two. */
  askedByName: number;
  above: LookAlikeLine[];
  below: LookAlikeLine[];
}
