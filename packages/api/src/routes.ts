import type { AccountStep, Plan, Problem, RouteDefinition, RouteInWords } from '@haycart/core';
import type { RunOutcome } from './submissions';

export interface RouteLine {
  id: string;
  name: string;
  state: 'live' | 'paused';
  version: number | null;
  /** Whether the draft differs from the version that runs. */
  draftDiffers: boolean;
  words: RouteInWords;
  from: { key: string; name: string }[];
  runs: Record<RunOutcome, number>;
}

export interface RouteShape extends RouteLine {
  draft: RouteDefinition;
  draftSavedAt: string;
  published: RouteDefinition | null;
  problems: Problem[];
}

/** A plan that was not carried out, with its account in sentences. */
export type Rehearsal = Plan & { account: AccountStep[]; names: Record<string, string> };

/** How many of the latest submissions meet a condition. */
export interface PassingShape {
  looked: number;
  pass: number;
  /** Submissions that fail by the writing of one value alone, by the clause that stands in their way. */
  nearMisses: { clause: string; differs: 'capitals' | 'writing'; count: number; example: string }[];
}

/** What a route says now: the version that runs, or its draft where there is none. */
export interface RouteDefinitionLine {
  id: string;
  definition: RouteDefinition;
}
