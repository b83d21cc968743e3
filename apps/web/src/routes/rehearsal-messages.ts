import type { KnownShape } from '@haycart/api';
import type { Problem, RehearsedPlan, RouteDefinition, RouteSurroundings, Submission } from '@haycart/core';

/** What the worker keeps from one rehearsal to the next, so that typing sends the definition alone. */
export interface RehearsalGround {
  submission: Submission;
  known: Pick<KnownShape, 'records' | 'links'>;
  surroundings: RouteSurroundings;
}

export type ToWorker = { ground: RehearsalGround } | { definition: RouteDefinition; turn: number };

export type FromWorker =
  | { turn: number; plan: RehearsedPlan }
  /** The definition cannot be carried out, or its shape is wrong. */
  | { turn: number; problems: Problem[] };
