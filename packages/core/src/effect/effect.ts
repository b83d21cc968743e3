import type { z } from '../schema-library';
import type { OwnerRule } from '../assignment/choose-owner';
import type { Destination } from '../destination/destination';
import type { FieldValue, FieldValues, RecordKind } from '../diff/record';
import type { JsonValue } from '../json';
import type { DocumentRow } from '../mail/mail-attachment';
import type { ConsentChannel, ConsentState } from '../consent/consent';
import type { WorkedOutValue } from '../value/work-out-value';
import type { ProblemCode } from '../codes';
import type { Problem } from '../problem';
import type { FollowUp, RouteDefinition } from '../definition/route-definition';
import type { Value } from '../value/value';
import type { Submission } from '../payload/submission';

/** What is sent to the outside once a run has written, at least once: a performer of its kind does it. */
export interface OutboxItem {
  kind: string;
  /** Where to: for a post its address. */
  to: string;
  /** Absent in the plan that is kept of a run, since the outbox holds it. */
  body?: JsonValue;
  /** Whether it waits so many minutes for others of its kind to the same receiver, and goes out as one with them. */
  together?: number;
  /** What makes it one: it is sent once for a submission and a route, however often these run. Absent: once for each try. */
  once?: string;
  /** The record in whose history it stands. */
  record?: { kind: RecordKind; id: string };
}

/** A task that a follow-up makes for a record. */
export interface MadeTask {
  make: 'task';
  /** One line. */
  title: string;
  body?: string;
  /** The key of the person who is to do it; `null` for nobody yet. */
  owner: string | null;
  /** ISO 8601; `null` for any time. */
  due: string | null;
  priority: TaskPriority;
}

/** A note that a follow-up writes on a record. */
export interface MadeNote {
  make: 'note';
  /** One line; blank where it has none. */
  title: string;
  text: string;
}

/** A PDF that a follow-up keeps with a record: what it says. */
export interface MadeDocument {
  make: 'document';
  /** Of the file: `Site survey.pdf`. */
  name: string;
  title: string;
  /** Absent in the plan that is kept of a run, since the document holds them. */
  rows?: DocumentRow[];
}

/** What a contact agrees to or withdraws by a follow-up. */
export interface MadeConsent {
  make: 'consent';
  channel: ConsentChannel;
  state: ConsentState;
  /** The exact words; where it was said. */
  words: string;
  place: string;
}

/** What stands beside a record's values once a follow-up has made it. */
export type MadeActivity = MadeTask | MadeNote | MadeDocument | MadeConsent;

export const TASK_PRIORITIES = ['low', 'normal', 'high'] as const;
export type TaskPriority = (typeof TASK_PRIORITIES)[number];

/** What one follow-up does. It is part of the plan: shown by the rehearsal, done by the run, told by the account. */
export interface PlannedEffect {
  do: string;
  /** What it does, as a sentence without a full stop that begins with a verb: `Post to crm.example`. */
  words: string;
  /** Why it does nothing, in words. */
  unmet?: string;
  /** The record that it is about. */
  record?: { kind: RecordKind; id: string };
  /** What is made for that record. */
  made?: MadeActivity;
  out?: OutboxItem;
}

/** A record as the writes of the run leave it. */
export interface EffectRecord {
  as: string;
  kind: RecordKind;
  id: string;
  did: 'create' | 'change' | 'keep';
  /** Whether the route leaves the record as it is, so that nothing may be added to it. */
  left: boolean;
  values: FieldValues;
}

/** What a follow-up is planned upon. */
export interface EffectContext {
  /** The record of the write that it names by `on`. */
  record?: EffectRecord | undefined;
  /** The documents that those before it make. */
  documents: readonly MadeDocument[];
  /** All that the run writes, in the order of the writes. */
  records: readonly EffectRecord[];
  route: Pick<RouteDefinition, 'name'>;
  submission: Submission;
  destination: Destination;
  workOut(value: Value): WorkedOutValue;
  /** The value as a field of the record that it is about takes it; `null` where it is blank or does not fit. */
  fillIn(field: string, value: Value): { value: FieldValue | null; problems: Problem[] };
  /** Whom a rule means, of those who may own a kind of record; `null` with a problem where nobody can be given anything. */
  chooseOwner(rule: OwnerRule, record?: RecordKind): { owner: string | null; problems: Problem[] };
}

/** What a kind makes of its settings. */
export interface EffectStep {
  words: string;
  problems?: Problem[];
  /** Values of the record that it is about, as they are afterwards; those that stay the same are left out. */
  changes?: Record<string, FieldValue | null>;
  made?: MadeActivity;
  out?: OutboxItem;
}

/** What a follow-up may name. */
export interface EffectSurroundings {
  route: RouteDefinition;
  destination: Destination;
}

/** What a follow-up may name beside values, conditions, writes and owners. */
export type EffectName = 'tags' | 'lists' | 'field' | 'channel' | 'template' | 'file' | 'team';

/** Finds what something is called here by what it is called elsewhere. */
export type AdoptName = (what: EffectName, key: string) => string;

/** The way to a value inside the settings. */
export type Way = (string | number)[];

/** One kind of follow-up. A registry entry: add a file and a line in `registry.ts`. */
export interface EffectKind<Settings extends FollowUp = FollowUp> {
  do: Settings['do'];
  label: string;
  /** One sentence for the editor and the docs. */
  description: string;
  shape: z.ZodType<Settings>;
  /** An example that the tests run. */
  example: { settings: Settings; words: string };
  /** The settings with every value changed: what reads, checks and renames values goes through them by this. */
  withValues(settings: Settings, change: (value: Value, way: Way) => Value): Settings;
  /** What is wrong with it beyond its values and its condition; the places are ways inside the settings. */
  check(settings: Settings, around: EffectSurroundings): { code: ProblemCode; text: string; way: Way }[];
  /** What it does as a clause: `the contact is tagged Show`. */
  describe(settings: Settings, around: EffectSurroundings): string;
  plan(settings: Settings, context: EffectContext): EffectStep;
  /** The settings in this workspace’s names. */
  adopt?(settings: Settings, adopt: AdoptName): Settings;
  /** Where it says who gets something. */
  owner?: {
    of(settings: Settings): { rule: OwnerRule; way: Way } | null;
    /** The settings with another rule. */
    put(settings: Settings, rule: OwnerRule): Settings;
  };
}

/** Keeps the type of the settings while an entry is written down. */
export function defineEffect<Settings extends FollowUp>(kind: EffectKind<Settings>): EffectKind {
  return kind as unknown as EffectKind;
}
