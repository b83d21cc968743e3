import type { PlannedRunMerge, RecordsDiff, Touch, Way } from '@haycart/core';

/** A diff with what caused it and when it counts from. */
export interface CausedDiff {
  diff: RecordsDiff;
  /** ISO 8601: the arrival of the submission, or the time of a person's change. */
  at: string;
  /** Since when its values count, where that is not `at`: what is given back is as old as what it takes the place of. */
  countsFrom?: string | undefined;
  /** Whether a person typed the values. */
  typed?: boolean;
  cause: { kind: 'run' | 'person' | 'merge' | 'take-back'; id: string };
  /** Who did it, where that is kept beside the cause. */
  by?: string;
  /** Records that became one with another. */
  merges?: readonly (PlannedRunMerge & { probability?: number | null })[];
  /** What a submission touched, with its way and the ways of earlier visits by their ids. Each visit is stored once. */
  touches?: { submission: string; way: Way; before: ReadonlyMap<string, Way>; records: readonly Touch[] };
}
