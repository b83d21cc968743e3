import type { Money, Pipeline } from '@haycart/core';

export interface PipelineShape extends Pipeline {
  id: string;
}

/** What stands in a place of the pipelines, and which routes name it. */
export interface PlaceUse {
  pipeline: string;
  stage: string;
  records: number;
  routes: { id: string; name: string }[];
  /** Kept views of lists that test for it. */
  views: { id: string; name: string }[];
}

/** A removal in the set-up, with what followed from it. */
export interface SetUpChange {
  id: string;
  at: string;
  by: string;
  text: string;
  takenBackAt: string | null;
}

export const AGE_BANDS = ['day', 'week', 'month', 'longer'] as const;

export type AgeBand = (typeof AGE_BANDS)[number];

export interface DealCard {
  id: string;
  number: number;
  name: string;
  value: { amount: number; currency: string } | null;
  owner: string | null;
  source: string | null;
  stageSince: string;
}

/** What some deals are worth: by currency, and in the workspace's own by today's rates. */
export interface Worth {
  byCurrency: Money[];
  total: Money;
  /** Currencies that no rate converts; their amounts are not in the total. */
  without: string[];
}

export interface PipelineGrid {
  pipeline: PipelineShape;
  /** How many days back conversion and what was closed are counted. */
  days: number;
  rows: {
    stage: string;
    count: number;
    worth: Worth;
    /** How many left this stage in those days, and the share of them that went forward; null when none did. */
    left: number;
    goOn: number | null;
    cells: Record<AgeBand, { count: number; deals: DealCard[] }>;
  }[];
  closed: { state: 'won' | 'lost'; count: number; worth: Worth }[];
  /** Of all that is open. */
  worth: Worth;
}
