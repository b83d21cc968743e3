import type { Figure, Figures } from '@haycart/core';

/** What rows of the report go by, from the outside in. */
export const SOURCE_PARTS = ['channel', 'source', 'campaign', 'page'] as const;
export type SourcePart = (typeof SOURCE_PARTS)[number];

/** Whose touches count for a deal: its own, those of its contacts too, or those of all people of its company too. */
export const JOURNEY_BASES = ['deal', 'contact', 'company'] as const;
export type JourneyBasis = (typeof JOURNEY_BASES)[number];

/** The words for rows that go by the intake, and by the team of a deal's owner. By a field they go by its kind of record and key: `deal.pipeline`. */
export const SOURCE_SPLIT_INTAKE = 'intake';
export const SOURCE_SPLIT_TEAM = 'team';

/** One row of the report. A part is `''` where it is not known. Money in minor units of the workspace's currency. */
export type SourceRow = { splitValue?: string } & Partial<Record<SourcePart, string>> & Figures;

/** Where business came from in a period. */
export interface SourcesReport {
  currency: string;
  /** What the credit goes by, in a sentence. */
  model: string;
  /** By all parts that were asked for; the largest won value first. */
  rows: SourceRow[];
  /** Subtotals by fewer parts, each before those inside it. A record with several sources counts once in each of them. */
  groups: SourceRow[];
  total: Figures;
  /** The figures that such a report tells; the others are 0. */
  figures: Figure[];
  /** What the first rows go by, and what their values are called; null when they go by channel. */
  split: { label: string; names: Record<string, string> } | null;
  /** What was won in each of the twelve months up to the end of the period, by channel; the earliest first. */
  months: { month: string; channels: { channel: string; won: number }[] }[];
  /** Deals whose amount is not in it, since no rate holds on their day. */
  withoutRate: { currency: string; deals: number }[];
  /** Currencies of costs that are not in it, since no rate holds on their day. */
  costsWithoutRate: string[];
  /** Changes of records that are not counted in yet; at most 1,000 are looked for. */
  waiting: number;
  /** Campaigns of the register, by what their links say. */
  campaigns: { key: string; code: string; name: string }[];
}

/** The figures whose records can be listed. */
export const SOURCE_FIGURES = [
  'submissions',
  'contacts',
  'qualified',
  'deals',
  'wonDeals',
  'value',
  'won',
  'cost',
] as const satisfies (keyof Figures)[];
export type SourceFigure = (typeof SOURCE_FIGURES)[number];

/** The records behind a figure: as many as it says, the first 200 of them listed. */
export interface SourceRecords {
  total: number;
  items: SourceRecord[];
}

/** One record behind a figure. */
export interface SourceRecord {
  kind: 'submission' | 'contact' | 'lead' | 'deal' | 'campaign';
  /** Of a campaign its key. */
  id: string;
  name: string;
  at: string;
  /** What it is worth, and how much of that this source is credited with; only of deals with an amount. Of a campaign what it cost. */
  worth?: number;
  credited?: number;
}

/** Ways that journeys went, by channel, and how many of them ended won. */
export interface JourneyPaths {
  paths: { steps: string[]; won: number; notWon: number }[];
  /** The number of journeys in `paths`. */
  journeys: number;
  /** The number of journeys on other paths, which are left out. */
  more: number;
}

/** The causes of an unknown source. */
export const UNKNOWN_CAUSES = ['lost-within', 'click-alone', 'no-visit', 'no-referrer', 'of-old'] as const;
export type UnknownCause = (typeof UNKNOWN_CAUSES)[number];

/** How many touches have an unknown source, by cause. */
export interface UnknownSources {
  /** All touches of the period. */
  touches: number;
  /** Of direct touches, why; at which intakes, those of most touches first. */
  causes: { cause: UnknownCause; touches: number; intakes: { key: string; name: string; touches: number }[] }[];
  /** Deals without any touch: made by hand or through the API. */
  byHand: number;
}

/** The deals whose first touch was in one month, and what became of them. */
export interface SourceCohort {
  /** `2026-03` */
  month: string;
  deals: number;
  /** How many were won, and lost; the others are open. */
  won: number;
  lost: number;
  /** What was won, in minor units of the workspace's currency. */
  worth: number;
  /** The number won within 1, 2, 3 … months of the first touch, cumulative. */
  wonWithin: number[];
  /** The median number of days from first touch to won; null when none is won. */
  daysToWon: number | null;
}

/** How far the deals of one source came; both names null for all of them, `source` alone for a channel. */
export interface FunnelRow {
  channel: string | null;
  source: string | null;
  deals: number;
  won: number;
  lost: number;
  open: number;
  /** For each stage, how many deals came as far. Those that were won came through all. */
  reached: number[];
  /** For each stage, how many were lost when they had come no further. */
  lostAt: number[];
}

/** How far the deals begun in a period came in a pipeline. A deal counts once in each channel and source that led to it. */
export interface SourceFunnel {
  /** Its key. */
  pipeline: string;
  /** Its open stages, in their order. */
  stages: { key: string; name: string }[];
  /** Channels, and sources of each; those with the most deals first. */
  rows: FunnelRow[];
  total: FunnelRow;
}

/** How fast something was answered. */
export interface AnswerSpeedRow {
  /** The channel, or the team. */
  name: string;
  /** How often somebody was given a record, and how often they did something about it. */
  given: number;
  answered: number;
  /** The minutes from given to answered in the middle of those answered, by the clock; null when none was. */
  minutes: number | null;
  /** The same in the working hours of whoever got it. */
  workMinutes: number | null;
  /** Of how many an answer was promised and due or given, and how many were in time. */
  promised: number;
  inTime: number;
}

/** How fast what was given to people in a period was answered. */
export interface AnswerSpeed {
  channels: AnswerSpeedRow[];
  teams: AnswerSpeedRow[];
  total: AnswerSpeedRow;
}

/** A view of where business came from that somebody is mailed each Monday. */
export interface ReportMail {
  id: string;
  name: string;
  /** What the report is asked for. */
  query: Record<string, string | number>;
  sentAt: string | null;
  /** Why the last one was not sent; null when it was. */
  error: string | null;
  nextAt: string;
}
