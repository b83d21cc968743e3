import type { MatchAnswer, Problem, Submission } from '@haycart/core';
import type { PublishedRoute } from '../routes/route-book.service';
import type { QueuedSubmission } from '../submissions/submission-queue';
import type { HoldAnswers } from './holds/hold-answers.service';

/** What was answered for the writes of one route. */
export type MatchAnswers = Readonly<Record<string, MatchAnswer>>;

/** One passage that is due: a submission, read, and a route that takes it. */
export interface DuePassage {
  queued: QueuedSubmission;
  route: PublishedRoute;
  /** What people answered who were asked which record is meant, by write. */
  answers?: MatchAnswers | undefined;
  /** What those said who were asked before anything is written. */
  answered?: HoldAnswers | undefined;
  read: { ok: true; submission: Submission } | { ok: false; problem: Problem };
}
