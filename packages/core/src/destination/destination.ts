import type { AnswerPromise } from '../people/answer-promise';
import type { RecordKind } from '../diff/record';
import type { ValueSet } from '../condition/value-set';
import type { LikenessModel } from '../identity/likeness/model';
import type { MailboxReading } from '../reading/mailbox';
import type { MailTemplate } from '../mail/mail-template';
import type { Team } from '../people/team';
import type { Availability } from '../people/working-time';
import type { MergeRules } from '../identity/survivorship';
import { counted } from '../text';
import type { FieldDefinition } from '../field/field-definition';
import type { ChannelRules, IntakeSource } from '../source/channel-rules';
import type { ExchangeRate } from './rates';

export interface Stage {
  key: string;
  name: string;
  state: 'open' | 'won' | 'lost';
  /** How many of a hundred deals in it are won in the end, as the sales team expects; whole percent. */
  probability?: number;
  /** After how many days in it a deal counts as stuck. */
  stuckAfter?: number;
}

/** An ordered way that deals (or leads) take; the order of the stages is the way forward. */
export interface Pipeline {
  key: string;
  name: string;
  record: 'deal' | 'lead';
  stages: Stage[];
  /** Where a record begins when nothing says in which stage; see `defaultStageOf`. */
  defaultStage?: string;
  /** How soon what comes into it is answered, where the team that gets it promises nothing. */
  promise?: AnswerPromise;
}

/** What a workspace has prepared for its records: everything a route may name by key. */
export interface Destination {
  fields: FieldDefinition[];
  pipelines: Pipeline[];
  /** ISO 3166-1 alpha-2: how a phone number without a country code is read. */
  defaultCountry: string;
  /** ISO 4217: the currency of an amount that names none. */
  defaultCurrency: string;
  /** Whether enquiries become deals at once (when not said), or leads that somebody qualifies first. */
  leadHandling?: 'deals' | 'leads';
  /** What the workspace calls a deal; `deal` when not said. */
  dealWord?: 'deal' | 'opportunity';
  /** What likeness is worked out from, by kind of record; the starting values where a kind has none. */
  likeness?: Readonly<Partial<Record<RecordKind, LikenessModel>>>;
  /** What is held to be one mailbox; the usual reading when not said. */
  mailboxes?: MailboxReading;
  /** How records become one; the usual rules when not said. */
  merging?: MergeRules;
  /** The teams by their keys. */
  teams?: Readonly<Record<string, Team>>;
  /** By which amounts of other currencies are added up. */
  rates?: readonly ExchangeRate[];
  /** What is known of people beside their names, by key. */
  people?: Readonly<Record<string, KnownPerson>>;
  /** Where messages go that are for no one person. */
  channels?: readonly MessageChannel[];
  /** Values that belong together, by their keys. */
  valueSets?: Readonly<Record<string, ValueSet>>;
  /** The channel rules; the usual ones when not given. */
  channelRules?: ChannelRules;
  /** What intakes say about where their submissions come from, by their keys. */
  intakeSources?: Readonly<Record<string, IntakeSource>>;
  /** The codes of campaigns, by spelling; see `campaignCodes`. */
  campaignCodes?: Readonly<Record<string, string>>;
  /** What mails are written by. */
  templates?: readonly MailTemplate[];
  /** What mails can have attached. */
  files?: readonly LibraryFile[];
}

/** What is known of somebody beside the name: when they work, how they are told something, what they can take and how much. */
export interface KnownPerson extends Availability {
  phone?: string;
  email?: string;
  /** How many open leads and deals are enough. */
  capacity?: number;
  /** How much of what comes on one day is enough. */
  perDay?: number;
  /** BCP 47. */
  languages?: readonly string[];
  skills?: readonly string[];
}

/** A file of the workspace that mails can have attached, such as a price list. */
export interface LibraryFile {
  key: string;
  name: string;
  /** In bytes. */
  size: number;
}

/** A chat or a phone that several read. */
export interface MessageChannel {
  key: string;
  name: string;
  by: 'chat' | 'text';
}

/** What a kind of record is called in sentences, in the workspace's own word for a deal. */
export function recordWord({ dealWord = 'deal' }: Pick<Destination, 'dealWord'>, kind: RecordKind): string {
  return kind === 'deal' ? dealWord : kind;
}

/** The same for several: `opportunities`. */
export function recordWords(destination: Pick<Destination, 'dealWord'>, kind: RecordKind): string {
  const word = recordWord(destination, kind);
  return word.endsWith('y') ? `${word.slice(0, -1)}ies` : `${word}s`;
}

/** `1 deal`, `3 opportunities`. */
export function countedRecords(destination: Pick<Destination, 'dealWord'>, count: number, kind: RecordKind): string {
  return counted(count, recordWord(destination, kind), recordWords(destination, kind));
}

/** The fields of a kind of record, in their order. */
export function fieldsOf(destination: Pick<Destination, 'fields'>, record: RecordKind): FieldDefinition[] {
  return destination.fields.filter((field) => field.record === record);
}

export function fieldOf(destination: Destination, record: RecordKind, key: string): FieldDefinition | undefined {
  return destination.fields.find((field) => field.record === record && field.key === key);
}

export function channelOf({ channels = [] }: Pick<Destination, 'channels'>, key: string): MessageChannel | undefined {
  return channels.find((channel) => channel.key === key);
}

export function pipelineOf(destination: Pick<Destination, 'pipelines'>, key: string): Pipeline | undefined {
  return destination.pipelines.find((pipeline) => pipeline.key === key);
}

export function stageOf(pipeline: Pipeline | undefined, key: string): Stage | undefined {
  return pipeline?.stages.find((stage) => stage.key === key);
}
