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
