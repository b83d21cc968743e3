import type { Figures } from '@haycart/core';

/** What rows of the report go by, from the outside in. */
export const SOURCE_PARTS = ['channel', 'source', 'campaign', 'page'] as const;
export type SourcePart = (typeof SOURCE_PARTS)[number];

/** Whose touches count for a deal: its own, those of its contacts too, or those of all people of its company too. */
export const JOURNEY_BASES = ['deal', 'contact', 'company'] as const;
export type JourneyBasis = (typeof JOURNEY_BASES)[number];

/** One row of the report. A part is `''` where it is not known. Money in minor units of the workspace's currency. */
export type SourceRow = Partial<Record<SourcePart, string>> & Figures;

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
  /** What was won in each of the twelve months up to the end of the period, by channel; the earliest first. */
  months: { month: string; channels: { channel: string; won: number }[] }[];
  /** Deals whose amount is not in it, since no rate holds on their day. */
  withoutRate: { currency: string; deals: number }[];
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
] as const satisfies (keyof Figures)[];
export type SourceFigure = (typeof SOURCE_FIGURES)[number];

/** The records behind a figure: as many as it says, the first 200 of them listed. */
export interface SourceRecords {
  total: number;
  items: SourceRecord[];
}

/** One record behind a figure. */
export interface SourceRecord {
  kind: 'submission' | 'contact' | 'lead' | 'deal';
  id: string;
  name: string;
  at: string;
  /** What it is worth, and how much of that this source is credited with; only of deals with an amount. */
  worth?: number;
  credited?: number;
}
